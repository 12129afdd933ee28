import { mend, note, unchecked, type Mistake } from '../../core/src/whole/design/mistakes/mistake';
import type { Design } from '@torvek/core/document';
import { catalogueOf } from '@torvek/core/parts';

const board = (d: Design, i: number) => d.boards![`board-${i}`]!;
const sensor = (d: Design, i: number) => d.sensors![`sensor-${i}`]!;
const unit = (d: Design) => d.parts['harrowmere-b12@1']!.data as unknown as Record<string, unknown>;
const current = (d: Design) => d.currentSensors!['current-main']!;

/** Boards of the truck. */
export const truckSense: Mistake[] = [
  mend('a board too few', 'string-1', (d) => {
    delete d.boards!['board-3'];
    for (const [id, { board: of }] of Object.entries(d.sensors!)) if (of === 'board-3') delete d.sensors![id];
  }),
  mend('a board of another string', 'string-1', (d) => delete board(d, 2).string),
  mend('two boards with one address', 'board-2', (d) => (board(d, 2).address = 1)),
  unchecked('a board without an address', 'boards.board-2.address', (d) => delete board(d, 2).address),
  unchecked('a board without a part', 'boards.board-2.unit', (d) => delete board(d, 2).unit),
  mend('two boards with one place in the chain', 'board-2', (d) => (board(d, 2).order = 1)),
  mend('a board that takes fewer than its least', 'board-1', (d) => (board(d, 1).takes = 2)),
  mend('a board that takes more than its channels', 'board-1', (d) => (board(d, 1).takes = 20)),
  unchecked('nobody knows in which box a board sits', 'boards.board-1.box', (d) => delete board(d, 1).box),
  mend('fuses for more than the leads of the modules carry', 'sense-all', (d) => {
    (d.parts['oakmere-lf160@1']!.data as unknown as Record<string, unknown>).senseLeadLimitA = 0.01;
  }),
  mend('a sensor in no module', 'sensor-1', (d) => delete sensor(d, 1).module),
  mend('a sensor read by nobody', 'sensor-1', (d) => delete sensor(d, 1).board),
  note('a sensor read by a board at the other end', 'sensor-1', (d) => (sensor(d, 1).board = 'board-3')),
  mend('more sensors than a board reads', 'board-1', (d) => {
    for (let i = 0; i < 12; i++)
      d.sensors![`sensor-x${i}`] = { tag: `X${i}`, module: 'module-c02', board: 'board-1', place: 'x' };
  }),
  note('no sensor in the whole pack', 'pack', (d) => delete d.sensors),
  mend('a current sensor that ends at a tenth of the peak', 'current-main', (d) => (current(d).rangeA = 22)),
  unchecked('no current sensor', 'currentSensors', (d) => delete d.currentSensors),
  unchecked(
    'a current sensor without a range',
    'currentSensors.current-main.rangeA',
    (d) => delete current(d).rangeA,
  ),
  unchecked(
    'a current sensor without a direction',
    'currentSensors.current-main.sign',
    (d) => delete current(d).sign,
  ),
  note('a current sensor of ten times the peak', 'current-main', (d) => (current(d).rangeA = 2500)),
  note('a current sensor of 30 kA', 'current-main', (d) => (current(d).rangeA = 30_000)),
  mend('bled at full, level at empty', 'pack', (d) => Object.assign(d.limits!, { balanceFromV: 3.4 })),
  mend('a first spin at nothing', 'sensing', (d) => (d.sensing!.spinCellV = 0.1)),
  mend('a first spin with the whole peak', 'sensing', (d) => (d.sensing!.spinA = 2000)),
  mend('channels half a volt off allowed', 'sensing', (d) => (d.sensing!.channelMv = 500)),
  mend('a loop that may take two minutes', 'sensing', (d) => (d.sensing!.reactionS = 120)),
  mend('sense leads without fuses', 'sense-all', (d) => (d.pack.sense!['sense-all']!.fused = 'none')),
  mend('sense fuses of 32 A', 'sense-all', (d) => (d.pack.sense!['sense-all']!.fuseA = 32)),
  mend('sense fuses for 32 V', 'sense-all', (d) => (d.pack.sense!['sense-all']!.fuseV = 32)),
  mend('limits looser than the cells', 'limits', (d) => (d.limits!.cutHighV = 3.8)),
  mend('a plug of twelve for thirteen wires', 'board-2', (d) => {
    const twelve = catalogueOf('connector').find(({ id }) => id === 'lintwell-j12')!;
    d.parts['lintwell-j12@1'] = twelve;
    board(d, 2).plug = 'lintwell-j12@1';
  }),
  mend('a unit that takes a second to pass on', 'string-1', (d) => (unit(d).passMs = 1000)),
  note('a sensor that is the mean of four', 'pack', (d) => (d.sensors!['sensor-1']!.meanOf = 4)),
  unchecked('a board whose plug is not chosen', 'boards.board-1.plug', (d) => delete board(d, 1).plug),
  note('a unit whose link does not part', 'board-1', (d) => (unit(d).isolatedLink = false)),
];

/** What the donor's monitor of the bus assumes. */
export const busSense: Mistake[] = [
  mend('a donor of another number of cells', 'sensing', (d) => (d.sensing!.donorCells = 84)),
  mend('a donor of half the capacity', 'sensing', (d) => (d.sensing!.donorAh = 60)),
  mend('a donor of another chemistry', 'sensing', (d) =>
    Object.assign(d.sensing!, { donorMinV: 2.5, donorMaxV: 3.65 }),
  ),
  unchecked('a donor nobody knows the cells of', 'sensing.donorCells', (d) => delete d.sensing!.donorCells),
  mend('split monitoring without a board', 'string-1', (d) => (d.sensing!.school = 'split')),
];
