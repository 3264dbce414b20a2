import type { StagePath } from '@/core/model/stages';

/** What a figure or picture says, in two lines. */
export interface HelpEntry {
  what: string;
  says: string;
}

export type HelpPage = StagePath | 'sets' | 'shelf' | 'workshop log' | 'learnt' | 'job' | 'figures' | 'beside';
export const HELP_NAMES: Record<HelpPage, string> = {
  sets: 'Sets',
  shape: 'Shape: what holds the water',
  match: 'Match: what meets at the table',
  tint: 'Tint: the colour of the water',
  pour: 'Pour: what goes into which cup',
  cure: 'Cure: when it is done',
  bench: 'Bench: the pour itself',
  log: 'Log: what really happened',
  shelf: 'Shelf: what stands there',
  'workshop log': 'The workshop’s log: the year as a tide',
  beside: 'Beside each other: what was different',
  figures: 'Figures over time',
  job: 'Job: money and hours as two jars',
  learnt: 'Learnt: what the record says of the figures',
};

/** What each page says, for its help and for the booklet; a page that is left out does not compile. */
export const HELP: Record<HelpPage, readonly HelpEntry[]> = {
  sets: [
    {
      what: 'A strip',
      says: 'The pieces of a set from the side, all on one table. The line through them is the water.',
    },
    { what: 'Next', says: 'What the set waits for: a layer that may go on, a batch to pour. A press goes there.' },
    { what: 'Put away', says: 'Sets that are out of sight. They are on no calendar until they are taken out again.' },
  ],
  shape: [
    {
      what: 'The strip and its level',
      says: 'Every piece cut open at one height. Drag the level, or give it the focus and use the arrow keys: all water follows.',
    },
    {
      what: 'The plan',
      says: 'The open piece from above in its water. Knobs are dragged or moved by arrow keys; lines are equal depth.',
    },
    {
      what: 'Water in each',
      says: 'What the bed takes up to the level, counted cell by cell, and how far that may be off.',
    },
    { what: 'Warnings', says: 'Where water would run out, spill or find no end, each with the press that mends it.' },
  ],
  match: [
    {
      what: 'Seams',
      says: 'Two edges face to face: step of the bed, gap, step of the level, difference of colour. The worst counts.',
    },
    { what: 'Row of boards', says: 'The order and turn in which the worst seam is best; what spoils it is named.' },
    {
      what: 'Tiles on a table',
      says: 'A layout in which all water meets, or the fewest pieces that it would still want.',
    },
    { what: 'Standards', says: 'One agreed profile for many edges, with a gauge to print and cut.' },
  ],
  tint: [
    { what: 'The wedge', says: 'The recipe from no water to the deepest, over a dark, your own and a pale bed.' },
    { what: 'Seen to', says: 'The depth at which a detail on the bed is lost, from across the table or from near by.' },
    {
      what: 'Doses',
      says: 'Grams of each colourant in 100 g of mix; drops follow from what a drop of the bottle weighs.',
    },
    {
      what: 'In which cups',
      says: 'Cup sizes in which whole drops come out right; below them a stock tint, a premix or the scale.',
    },
  ],
  pour: [
    {
      what: 'To mix',
      says: 'What the pieces take, and what stays in cups and drips. A press on its name says how it came about.',
    },
    { what: 'A cup', says: 'What goes into it in its order, the pieces it fills, and by when it must be empty.' },
    {
      what: 'Have and need',
      says: 'What the batch takes against what stands on the shelf, and which packs would cover it.',
    },
    { what: 'Pour card', says: 'All of it on one sheet of paper, to tick off beside the scale.' },
  ],
  cure: [
    { what: 'Evenings', says: 'What is done when you are at the bench, of all sets, so that nothing waits for long.' },
    {
      what: 'A cure line',
      says: 'One layer in your room by day and night: when the next may go on, when it is firm, when it is hard.',
    },
    {
      what: 'Built with',
      says: 'What bodies, glues, paints and plants are of; what of that fights is told here and at its step. What you have tried yourself outweighs it.',
    },
    { what: 'Keep this calendar', says: 'From then on cards, bench and log go by it; before that it is a proposal.' },
  ],
  bench: [
    {
      what: 'The run',
      says: 'One step at a time, readable from a metre away, with one large press. It goes on in any window.',
    },
    { what: 'Clocks', says: 'Pour by, look for bubbles and leaks, next layer. They ring wherever the page is open.' },
    {
      what: 'Practice',
      says: 'The same with a simulated scale and slips thrown in. It takes nothing and leaves nothing in the log.',
    },
  ],
  log: [
    {
      what: 'Layers',
      says: 'Planned and real for every cup, its ratio, and what was noted. Corrections are further entries.',
    },
    {
      what: 'Looked over',
      says: 'Arrows go along the row, a letter notes what you see, Enter passes. The level may be typed or read by a gauge.',
    },
    {
      what: 'Photos',
      says: 'By the camera or out of a file: made small, place and time taken out, kept on this machine and in archives. With a white card in it, the colour is held against the recipe.',
    },
    {
      what: 'Copies',
      says: 'Every copy as far as it is poured: open, layers to come, firm, cured, looked over, delivered, spoilt.',
    },
  ],
  shelf: [
    {
      what: 'What stands here',
      says: 'Bottles and packs as full as the log has left them; what is near its date is named.',
    },
    { what: 'Products', says: 'Pot life, layers, recoat and cure of the label. Every plan counts with them.' },
    { what: 'Workshop', says: 'The room, scale, cups, hours and units that hold for everything.' },
  ],
  beside: [
    {
      what: 'Different',
      says: 'What is further apart than one would notice, the furthest first. Of facts of pieces it is the piece that is worst off.',
    },
    { what: 'The names', says: 'Each opens to how its figure is found.' },
    { what: 'Not recorded', says: 'The bench, the sensor or the log did not say it: it may still be the reason.' },
  ],
  figures: [
    {
      what: 'Points',
      says: 'Each is a batch; a press opens it in the log of its set. The line is the mean of the last five up to there.',
    },
    {
      what: 'The sentences',
      says: 'How the last five batches stand against all those before. Shares of grams are weighed by grams, shares of pieces by pieces.',
    },
  ],
  job: [
    {
      what: 'The jars',
      says: 'What is spent fills them, what is still to come stands lighter above it. The brim is the budget; what is likely to run over it stands above in red. The dashed line is how high it goes in the bad case.',
    },
    {
      what: 'What would bring it back',
      says: 'Steps that a piece can do without, and batches that are not begun, with the hours and the money that each would save.',
    },
    {
      what: 'Stop-watch',
      says: 'For hours that no run and no marked step tells of. It goes on when the page is closed; what was forgotten is typed in.',
    },
    {
      what: 'Quote',
      says: 'Kept as it stands when you agree on it, it stays beside what the job comes to, and beside what it really was once all is delivered.',
    },
  ],
  learnt: [
    {
      what: 'Dots',
      says: 'Each cup, piece, pack, layer, bed, count of drops or step on record at its value, the older the lower. A hollow one is not counted: it is far off the others, or was left out. A press shows where it comes from.',
    },
    {
      what: 'The lines',
      says: 'Thin: the figure that plans are made with. Firm: what it comes out at with the record, and how sure that is.',
    },
    {
      what: 'Take it over',
      says: 'Plans from now on are made with the new figure. What is poured keeps the one it was planned with. Left as it is, it is offered again once half as much more is on record.',
    },
    {
      what: 'Said before every run',
      says: 'What a look over has taught. It stands in the list of what has to be ready until it is taken off.',
    },
  ],
  'workshop log': [
    {
      what: 'The tide',
      says: 'A year of weeks: what was mixed rises over the line, what of it reached no piece lies under it. A press opens the week.',
    },
    {
      what: 'Days',
      says: 'All that was poured, looked over, bought, thrown away and said on a day, in the order of the day.',
    },
    {
      what: 'About',
      says: 'Only what one product, bottle, job or piece took part in; pieces stand there once a set is chosen.',
    },
    {
      what: 'Find',
      says: 'Words of notes, sets, customers, pieces, products and bottles; all that are typed must be there.',
    },
    {
      what: 'Files',
      says: 'What is shown goes out as CSV or JSON. Notes, and pieces as they were looked over, come in the same way, out of a spreadsheet too.',
    },
  ],
};
