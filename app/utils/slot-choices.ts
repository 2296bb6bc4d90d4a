import { groupOf, slotFacts, slots } from '#core/model/ledger'

/** The slots to choose from, in reading order under their groups. */
export const slotChoices = slots.map(slot => ({ value: slot, label: slotFacts[slot].label, group: groupOf(slot) }))
