import { countedLines, type LineEstimates } from '../../mass/loadout'
import { packLabel, type Build, type Line, type LoadoutChoice } from '../../model/ledger'
import { craftOf, type Craft } from '../currents'
import { chanceOfGoal, lnKappaOf, powerThatLastsW, taughtPackModel, type TaughtPlan } from '../flown'
import { idealHoverW, styleFactors, styles, type Style } from '../power'
import { dischargeAsked, minutesOf } from './forecast'

interface Flyable {
  readonly craft: Craft
  readonly pack: Line
  readonly massG: number
}

function flyableOf(build: Build, choice: LoadoutChoice, estimates: LineEstimates, plan: TaughtPlan): Flyable | null {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId)
  const massG = estimates.sum(lines).valueG
  if (!pack?.pack || !(massG > 0)) return null
  const craft = craftOf(lines, pack, plan)
  return 'missing' in craft ? null : { craft, pack, massG }
}

function chanceFor({ craft, pack, massG }: Flyable, plan: TaughtPlan, goalMinutes: number): number {
  const { powerW: _powerW, ...asked } = dischargeAsked(craft, pack, massG, plan)
  const lastsW = powerThatLastsW(taughtPackModel(pack, plan), asked, goalMinutes * 60)
  const idealW = idealHoverW(massG, craft.areaM2, craft.densityKgM3)
  return chanceOfGoal(lnKappaOf(craft, plan), idealW, craft.avionicsW, lastsW)
}

/** How likely one flight of a loadout lasts so many minutes, 0 to 1; null where its minutes cannot be told. */
export function goalChance(
  build: Build,
  choice: LoadoutChoice,
  estimates: LineEstimates,
  plan: TaughtPlan,
  goalMinutes: number,
): number | null {
  const flyable = flyableOf(build, choice, estimates, plan)
  return flyable && chanceFor(flyable, plan, goalMinutes)
}

/** What would bring the goal: each of them alone, and what the chance then is; null where nothing of its kind would. */
export interface GoalWays {
  /** Grams off after which the usual minutes are those of the goal; 0 where they are already. */
  readonly lighterG: number | null
  readonly otherPack: { readonly lineId: string; readonly label: string; readonly chance: number } | null
  readonly gentler: { readonly style: Style; readonly chance: number } | null
}

/** Grams off beyond which a craft is another craft: half of it. Our choice. */
const mostOff = 0.5

function lighterFor({ craft, pack, massG }: Flyable, plan: TaughtPlan, goalMinutes: number): number | null {
  const reaches = (grams: number) => minutesOf(craft, pack, grams, plan) >= goalMinutes
  if (reaches(massG)) return 0
  let [low, high] = [massG * (1 - mostOff), massG]
  if (!reaches(low)) return null
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2
    if (reaches(middle)) low = middle
    else high = middle
  }
  return massG - low
}

/** Which single change would bring a loadout to its goal; null where its minutes cannot be told. */
export function goalWays(
  build: Build,
  choice: LoadoutChoice,
  estimates: LineEstimates,
  plan: TaughtPlan,
  goalMinutes: number,
): GoalWays | null {
  const flyable = flyableOf(build, choice, estimates, plan)
  if (!flyable) return null
  const now = chanceFor(flyable, plan, goalMinutes)
  const others = build.lines
    .filter(line => line.slot === 'pack' && line.state === 'fitted' && line.pack && line.id !== choice.packLineId)
    .flatMap(line => {
      const chance = goalChance(build, { ...choice, packLineId: line.id }, estimates, plan, goalMinutes)
      return chance !== null && chance > now ? [{ lineId: line.id, label: packLabel(line), chance }] : []
    })
    .sort((a, b) => b.chance - a.chance)
  const gentler = styles
    .filter(style => style !== 'hover' && styleFactors[style].usual < styleFactors[plan.style].usual)
    .map(style => ({ style, chance: chanceFor(flyable, { ...plan, style }, goalMinutes) }))
    .filter(({ chance }) => chance > now)
    .sort((a, b) => styleFactors[b.style].usual - styleFactors[a.style].usual)
  return { lighterG: lighterFor(flyable, plan, goalMinutes), otherPack: others[0] ?? null, gentler: gentler[0] ?? null }
}
