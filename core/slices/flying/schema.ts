import { z } from 'zod'
import { styles, type FlightPlan } from '../../model/data'
import { idSchema } from '../../text/schemas'
import { loadoutChoiceSchema, mostLoadouts } from '../loadouts'

const number = (sentence: string, least: number, most: number) =>
  z.number({ error: sentence }).min(least, sentence).max(most, sentence)

export const flyingShape = {
  style: z.enum(styles, { error: `The style is one of: ${styles.join(', ')}.` }),
  altitudeM: number('The altitude is from −500 to 9000 m.', -500, 9000),
  temperatureC: number('The temperature is from −40 to 60 °C.', -40, 60),
  reservePercent: number('The reserve is from 0 to 100 % of the capacity.', 0, 100),
  endCellV: number('The end of the flight is from 2 to 4.3 V a cell under load.', 2, 4.3).nullable(),
  warnCellV: number('The warning is from 2 to 4.3 V a cell.', 2, 4.3).nullable(),
  efficiency: number('The efficiency is from 0.05 to 0.9.', 0.05, 0.9).nullable(),
  alsoCardIds: z.array(idSchema).max(50),
  overOnPurpose: z.array(loadoutChoiceSchema).max(mostLoadouts),
}
export const flyingSchema = z.strictObject(flyingShape) satisfies z.ZodType<FlightPlan>
