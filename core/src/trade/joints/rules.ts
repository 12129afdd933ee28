import { rulesOf } from '../../ground/finding';

const rule = rulesOf('joints');

/** Below this share of the proof stress a bolt works loose. */
export const leastProofShare = 0.15;

export const jointRules = {
  loose: rule(
    'torque-low',
    'mend',
    'The torque clamps next to nothing',
    'A joint that is not pressed together heats, and shakes loose on the first rough road.',
    'The torque that the maker of the module or the stud gives; half to three quarters of the proof stress is usual.',
    'Torque and force of a dry thread, against the proof stress',
  ),
  plating: rule(
    'face-not-lug',
    'mend',
    'The lugs are not of the metal that the joint says',
    'What meets is judged by the faces: with another surface the judgement is of another joint.',
    'Say what the lug is made of, or choose the lug that was meant.',
    'Surface of the lug by its sheet',
  ),
  unsaid: rule(
    'no-kind',
    'note',
    'Nothing says how these joints are made',
    'Joints fail more often than conductors: what is not decided is done differently by each hand.',
    'Say studs, torque, faces and stack of these joints.',
    'Practice of high-voltage assembly',
  ),
  stress: rule(
    'torque-over-proof',
    'stop',
    'The torque stretches the thread',
    'A thread beyond its proof stress gives way, now or at the next hot day, and the joint opens.',
    'A lower torque, a stronger class, or a larger stud; the maker’s torque goes before all.',
    'ISO 898-1 and ISO 3506-1; F = T/(K·d) with K = 0.2, dry',
  ),
  engagement: rule(
    'engagement',
    'mend',
    'Too little thread is in',
    'A short thread strips before the stud is tight, and a soft metal strips sooner.',
    'A longer bolt or insert: so many diameters as the metal asks.',
    'Workshop practice: 0.8 d in steel, 1.2 d in brass and copper, 1.6 d in aluminium',
  ),
  galvanic: rule(
    'metals',
    'mend',
    'These two metals eat each other',
    'Damp between metals that lie far apart makes a cell: the baser one corrodes, and the joint gets hot.',
    'Tin or nickel on the baser face, a bimetal lug, or a drier place.',
    'Anodic index; 0.5 V kept dry, 0.25 V with dew now and then, 0.15 V wet and dirty',
    { version: 2 },
  ),
  oxide: rule(
    'bare-aluminium',
    'mend',
    'Bare aluminium is joined as it is',
    'Aluminium is under an oxide that does not conduct and grows again within minutes.',
    'Brush it under contact paste and close the joint at once.',
    'Practice of aluminium bars',
  ),
  stack: rule(
    'stack',
    'stop',
    'Something lies between the faces that carry the current',
    'A washer between lug and bar is a resistor: it heats with the square of the current.',
    'Post, bar and lugs directly on each other; washer, spring and nut above them.',
    'Practice of bolted joints',
  ),
  springOnFace: rule(
    'spring-on-copper',
    'note',
    'A spring washer lies on a soft face',
    'It digs into copper or tin and takes less force from the stud than it seems to.',
    'A flat washer between the face and the spring.',
    'Practice of bolted joints',
  ),
  solder: rule(
    'crimp-solder',
    'note',
    'The crimps are soldered',
    'Solder runs up between the strands: where it ends the cable no longer flexes and breaks.',
    'Crimp alone with the right die; where solder stays, hold the cable still beyond it.',
    'Two schools: crimp alone is the default here',
  ),
  retorque: rule(
    'no-retorque',
    'note',
    'No day is set to torque these joints again',
    'Soft metals settle: most of what a joint loses it loses in its first weeks.',
    'Set after how many days they are torqued again.',
    'Practice of bolted joints',
  ),
};

/** How far a torque may lie from the one wanted: the wrench’s own tolerance and the reading of it. */
export const torqueTolerance = 0.1;

/** What the record of torques and drops says. */
export const measuredJointRules = {
  outlier: rule(
    'outlier',
    'mend',
    'A joint has far more resistance than its like',
    'Equal joints have equal drops: the one that differs is loose, dirty or badly crimped, and gets worse.',
    'Open it, look at its faces and its crimp, make it anew and measure again.',
    'Median and its deviations; more than twice the middle counts too',
  ),
  overLimit: rule(
    'over-limit',
    'mend',
    'A joint has more resistance than its kind may have',
    'Its heat grows with the square of the current, right at a post or a stud.',
    'Open it, clean the faces, see the stack and the torque, measure again.',
    'The limit of the design',
  ),
  torqueOff: rule(
    'torque-off',
    'mend',
    'A joint was not torqued as the design says',
    'Too little lets it work loose, too much has stretched the thread.',
    'Torque it again as designed; one that was too tight gets a new bolt.',
    'The torque of the design, ± 10 %',
  ),
  due: rule(
    'retorque-due',
    'mend',
    'Joints are due to be torqued again',
    'Soft metals have settled since the first time.',
    'De-energise, prove dead, torque them again, mark them, record it.',
    'The days that the design sets',
  ),
};
