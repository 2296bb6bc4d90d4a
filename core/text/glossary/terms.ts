/** A term of the trade: how it is written, what it is in one sentence with its unit, and why it matters. */
export interface Term {
  readonly word: string
  /** Other spellings it goes by. */
  readonly also?: readonly string[]
  readonly says: string
}

/** The terms by what they belong to, in the order they are read. */
export const glossary = [
  {
    about: 'Weight and limits',
    terms: [
      {
        word: 'AUW',
        also: ['all-up weight'],
        says: 'Everything that leaves the ground, pack and payload included, in grams.',
      },
      { word: 'Dry', also: ['dry weight'], says: 'All-up weight without pack and payload, in grams.' },
      { word: 'Headroom', says: 'Grams left below the limit of the card that binds; negative when over.' },
      {
        word: 'Guard band',
        says: 'Grams kept below a limit so that, with the doubt there is, the true weight lies under it as surely as was asked.',
      },
      {
        word: 'Too close to call',
        says: 'The limit lies inside the spread: neither “Clear” nor “Over” can be said until something is weighed.',
      },
      {
        word: 'Verdict',
        says: 'Clear, Over or too close to call: whether the all-up weight with its spread keeps to the card that binds.',
      },
      {
        word: 'Sure',
        says: 'In how many of 100 cases the true weight then keeps to the limit, by the spread there is.',
      },
      { word: 'Reserve', says: 'Grams of your own that stay free below the limit, for mud, tape and a heavier spare.' },
      { word: 'lb, oz', says: 'Avoirdupois pound of 453.59237 g and its sixteenth, 28.349523125 g.' },
    ],
  },
  {
    about: 'How grams are known',
    terms: [
      {
        word: 'Spread',
        also: ['±'],
        says: 'Half the width of the interval in grams that holds the true weight in 95 of 100 cases.',
      },
      {
        word: 'Known by',
        says: 'Where the grams of a line come from: weighed, worked out, listed, typical, twin or guess. Surer means closer.',
      },
      { word: 'Believed', says: 'Grams of a line before it was weighed, by whatever was known of it.' },
      {
        word: 'Correction',
        says: 'By how much grams of this kind are moved because earlier listings of it read too light or too heavy.',
      },
      { word: 'Weighed', says: 'Read off a scale, corrected by its last check.' },
      {
        word: 'Worked out',
        says: 'From dimensions and material: wire by length and gauge, screws by thread and length.',
      },
      { word: 'Listed', says: 'What the seller says; widened by how far off earlier listings of that kind were.' },
      { word: 'Typical', says: 'The range seen in a class of parts; the middle is taken, the range is the doubt.' },
      { word: 'Twin', says: 'Weighed, but another piece of the same kind: pieces differ by a percent or two.' },
      { word: 'Step', also: ['resolution'], says: 'The smallest difference a scale shows, in grams.' },
      { word: 'Tare', also: ['tray'], says: 'What lies on the pan and is taken off every reading, in grams.' },
      { word: 'Gain', says: 'By what factor a scale reads too much or too little; found with a reference mass.' },
    ],
  },
  {
    about: 'Drive and power',
    terms: [
      { word: 'kV', says: 'Turns a minute for each volt of a motor without load.' },
      {
        word: 'Stator',
        says: 'Four digits: diameter and height of the motor’s iron in millimetres; 1404 is 14 mm by 4 mm.',
      },
      {
        word: 'S',
        also: ['4S'],
        says: 'Cells in series; a LiPo cell is 4.2 V full and about 3.5 V when it is time to land.',
      },
      { word: 'mAh', says: 'Charge a pack holds, in thousandths of an ampere for an hour.' },
      {
        word: 'C',
        also: ['C rating'],
        says: 'Current a pack is said to bear, as a multiple of its charge in one hour.',
      },
      { word: 'mΩ', says: 'Resistance inside a pack or wire, in thousandths of an ohm: what makes the voltage sag.' },
      { word: 'Sag', says: 'Volts lost inside the pack while current flows.' },
      { word: 'AWG', says: 'Gauge of a wire: the higher the number, the thinner; three numbers are half the copper.' },
      { word: 'Way', says: 'How far a lead runs from pad to pad along the frame, in millimetres.' },
      {
        word: 'Slack',
        says: 'What a lead is longer than its way, in millimetres: for bends, and to solder it once more.',
      },
      { word: 'Hover draw', says: 'Amperes it takes to stay where it is.' },
      { word: 'Thrust to weight', says: 'Full thrust of all motors divided by the all-up weight.' },
      { word: 'mAh/g', says: 'Charge for each gram of pack: the more, the longer it flies at the same weight.' },
    ],
  },
  {
    about: 'Flights',
    terms: [
      {
        word: 'Reserve kept',
        says: 'Minutes a flight would have lasted at its own mean power until the reserve of the pack is reached.',
      },
      {
        word: 'Held flight',
        says: 'A flight that does not agree with the others: it is kept and counted, but changes no forecast until you take it in.',
      },
    ],
  },
  {
    about: 'The build',
    terms: [
      {
        word: 'Bob',
        says: 'Centre of gravity of the loadout in view: the point it would hang from a thread without tilting.',
      },
      {
        word: 'Middle of the motors',
        says: 'Where thrust pulls when all motors pull alike; lengths are counted from it.',
      },
      {
        word: 'Lies at',
        says: 'Front of the pack behind the front edge of the tray, in mm, where the craft hangs true; without a tray how far it slides.',
      },
      {
        word: 'Hover load',
        says: 'Grams each motor must lift for the craft to stay level; all alike where the bob is under the middle of the motors.',
      },
      {
        word: 'Radius of gyration',
        says: 'At what distance from an axis all the mass would turn as lazily as it does now, in millimetres.',
      },
      { word: 'Slot', says: 'What a part is for: frame, motor, board, camera, pack and so on.' },
      { word: 'Set-up', says: 'Which fittings and payload fly together: “bare”, “with the lamp”.' },
      { word: 'Loadout', says: 'A set-up with one pack: what a verdict is about.' },
      {
        word: 'Candidate',
        says: 'A part that could go in the place of a fitted one; it counts for nothing until it is fitted.',
      },
      { word: 'Tie', says: 'Lines that travel together: a camera with its cable is taken off with it.' },
      {
        word: 'Stack',
        says: 'Boards and plates one above the other on their screws, with the gaps between, in millimetres.',
      },
      { word: 'Maiden', says: 'The first flight of a build.' },
    ],
  },
] as const satisfies readonly { readonly about: string; readonly terms: readonly Term[] }[]

/** A term of the glossary by the word it is looked up with. */
export type TermWord = (typeof glossary)[number]['terms'][number]['word']

const byWord: ReadonlyMap<string, Term> = new Map(glossary.flatMap(({ terms }) => terms.map(term => [term.word, term])))

/** What a term is, in a sentence. */
export function explain(word: TermWord): string {
  return byWord.get(word)!.says
}

/** Where a term stands on the page of the glossary. */
export function termId(word: string): string {
  return word.toLowerCase().replaceAll(/[^a-zω0-9]+/g, '-')
}
