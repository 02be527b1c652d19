// What each room and each knot is for, in two sentences.
export const HELP: Record<string, readonly [title: string, says: string]> = {
  bench: [
    'Bench',
    'The bench lists jobs by their ship date, each with its next move. Type a size and a destination in the line above for a price, or start a job from a kind of goods.',
  ],
  cutting: [
    'Cutting',
    'The cutting plan lays the blanks of all chosen boxes on as few sheets as possible, with the cuts in order. Mark as cut takes the sheets off the stock and keeps the off-cuts.',
  ],
  tariffs: [
    'Tariffs',
    'Tariffs hold what each carrier charges, one sentence a charge. Paste your own prices from a spreadsheet, try a size, and compare two versions before you save.',
  ],
  kinds: [
    'Kinds of goods',
    'A kind holds the parts, the steps of taking apart, the wrap and the checks that a job begins with. Copy one and change it, or save a job as a kind.',
  ],
  settings: [
    'Settings',
    'Settings hold what your shop measures for itself: board, boxes, wrap, labour rate, channels. Every figure is a starting value until you change it.',
  ],
  start: [
    'Set up the shop',
    'Each screen asks for one thing that a price needs, and each can be skipped. Everything can be changed later under Settings and Tariffs.',
  ],
  measure: [
    'Measure',
    'Type each part as it is unwrapped, at the widest point: length, width, height, weight. The inside size needed is stated beside the parts, and the docket lists what is missing.',
  ],
  protect: [
    'Protect',
    'Layers go on from the goods outward, each with what to cut for it. Fragility sets the usual gap, and the cushion check says whether gap and wrap are thick enough.',
  ],
  arrange: [
    'Arrange',
    'Arrange looks for the lowest total with every gap kept and the parts in their real shapes. Move a part with the arrow keys, lock it, and arrange the others again.',
  ],
  box: [
    'Box',
    'Box styles are listed by their total, cut from sheet or taken from stock; pick one to see its cut sheet and its steps. Choose this box when you have decided.',
  ],
  price: [
    'Price',
    'Each row is one plan: service, box, days, every cost and the total. Unfold a row to see the lines of the bill and what would cost less.',
  ],
  sent: [
    'Sent',
    'Weigh and measure the closed parcel: it is priced again before you buy a label. Print the label and the papers, enter the tracking number, and note the hand-over.',
  ],
  pack: [
    'Pack',
    'Fetch what is listed, then go step by step: the space bar or a tap on Done ticks a step and goes on. Ticks are kept while the connection drops, and ticks from two devices are merged.',
  ],
};
