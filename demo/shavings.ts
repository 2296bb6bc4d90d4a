import { makeShaving, type Shaving } from '../core/shave'

/** What the builder of the nest counter could take off, by the kitchen table. */
export const nougatShavings: readonly Shaving[] = [
  makeShaving({ id: 'leads', what: 'cut the motor leads to 75 mm', kind: 'trim leads', lineId: 'motors', gramsG: 2.7, spreadG: 0.3, evidence: 'worked out', minutes: 45 }),
  makeShaving({ id: 'titanium', what: 'titanium screws, all twenty', kind: 'change material', lineId: 'screws', gramsG: 2.9, spreadG: 0.3, evidence: 'worked out', cents: 1640 }),
  makeShaving({ id: 'strap', what: 'fabric strap 12 mm', kind: 'lighter strap', lineId: 'strap', gramsG: 2.1, spreadG: 0.2, evidence: 'listed', cents: 180 }),
  makeShaving({ id: 'pad', what: 'no pad under the pack', kind: 'leave off', lineId: 'pad', gramsG: 1.62, spreadG: 0.03, evidence: 'weighed', loss: 3, lossWord: 'protection' }),
  makeShaving({ id: 'case', what: 'strip the case of the video unit', kind: 'strip case', lineId: 'vtx', gramsG: 4.2, spreadG: 0.8, loss: 4, lossWord: 'protection' }),
  makeShaving({ id: 'coax', what: 'shorter coax on the stub', kind: 'shorter lead', lineId: 'aerial', gramsG: 0.8, spreadG: 0.2, cents: 350, loss: 1, lossWord: 'range' }),
  makeShaving({ id: 'powerlead', what: 'power lead cut to 60 mm', kind: 'shorter lead', lineId: 'lead', gramsG: 1.3, spreadG: 0.15, evidence: 'worked out' }),
  makeShaving({ id: 'drill', what: 'drill the bottom plate', kind: 'drill', lineId: 'frame', gramsG: 1.9, spreadG: 0.5 }),
  makeShaving({ id: 'mount', what: 'thinner mount for the heat camera', kind: 'change material', lineId: 'heatmount', gramsG: 1.4, spreadG: 0.3, cents: 250, minutes: 90, loss: 2, lossWord: 'picture' }),
]
