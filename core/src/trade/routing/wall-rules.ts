import { rulesOf } from '../../ground/finding';

const rule = rulesOf('wall');

export const wallRules = {
  hole: rule(
    'hole-off',
    'mend',
    'A hole does not suit its gland',
    'Through a hole that is too small the thread does not go; over one that is too large the seal does not lie.',
    'Drill it to the thread and 0.2 to 0.5 mm, or take the gland of the next size with its reducer.',
    'Hole against the thread of the gland: 1 mm at most above it',
  ),
  room: rule(
    'room-short',
    'mend',
    'There is no room behind a wall to bend the cable',
    'It is bent at the edge of its gland: the seal opens on one side, and strands break where nobody sees it.',
    'Another place in the wall, an angled fitting, or a cable that bends tighter.',
    'Stiff length and bend radius against the free room, both sides',
  ),
  open: rule(
    'left-open',
    'mend',
    'An opening is not closed',
    'Dust, water and fingers come in, and a bare edge cuts what lies in it.',
    'A blank in what stays unused; a gland, grommet or plug around what passes.',
    'What passes the opening, and what closes it',
  ),
  crowded: rule(
    'face-crowded',
    'mend',
    'Glands do not fit side by side in their wall',
    'The spanner does not get around the nuts, or the holes tear into one another.',
    'Spread them over two walls or two rows with room for the spanner.',
    'Holes and the nuts on them, 1.5 times the hole and 6 mm, against the longer side of the wall',
  ),
  missing: rule(
    'no-opening',
    'note',
    'A run ends at a box and no opening is listed for it',
    'Of the other walls of this box the openings are known: this one was forgotten, or drilled and not written down.',
    'List it, with its hole and what closes it.',
    'Openings of the box against the runs that end there',
  ),
};
