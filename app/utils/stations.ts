/** The stations of a build that can be visited, with their numbers in the order of work and the key that opens them. */
export const stations = [
  {
    number: 1,
    key: '1',
    name: 'Aim',
    page: 'aim',
    question: 'What am I building, for which purpose, under which rule card?',
  },
  {
    number: 2,
    key: '2',
    name: 'Parts',
    page: 'parts',
    question: 'What flies, what does each thing weigh, how do I know, and what is the total?',
  },
  {
    number: 3,
    key: '3',
    name: 'Fit',
    page: 'fit',
    question:
      'Do these parts go together: holes, screws, heights, volts, amps, plugs, props, video and radio families?',
  },
  {
    number: 4,
    key: '4',
    name: 'Weigh',
    page: 'weigh',
    question: 'What does it really weigh? Which lines are still only believed?',
  },
  {
    number: 5,
    key: '5',
    name: 'Shave',
    page: 'shave',
    question: 'Where do the missing grams come from, at the least cost?',
  },
  {
    number: 6,
    key: '6',
    name: 'Packs',
    page: 'packs',
    question: 'With which packs, props and payloads am I clear, for how many minutes, with how much thrust?',
  },
  {
    number: 7,
    key: '7',
    name: 'Assemble',
    page: 'assemble',
    question:
      'In which order do I build this one, what must be tested before going on, and what should the scale say after each step?',
  },
  { number: 10, key: '0', name: 'Record', page: 'record', question: 'What changed, when and why?' },
] as const

export function stationPlaces(buildId: string) {
  return stations.map(station => ({ ...station, to: `/builds/${buildId}/${station.page}` }))
}
