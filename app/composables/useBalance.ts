import {
  balanceOf,
  layoutOf,
  meetingsOf,
  pieceKey,
  placeOfPiece,
  withPlaces,
  type Balance,
  type Piece,
  type Vec3,
} from '#core/aircraft/balance'
import { flightPlanOf, sheetFlight } from '#core/aircraft/flight'
import type { PiecePlace } from '#core/model/ledger'

/** How near to the middle line a piece snaps onto it, mm. */
const snapMm = 1

/** How the loadout on view hangs, with pieces as they are being moved; what is moved is kept when it comes to rest. */
function balanceOnView() {
  const store = useBuildStore()
  const moving = shallowRef<readonly PiecePlace[]>([])
  /** The build as it is while a piece is being moved. */
  const shown = computed(() => (store.build ? withPlaces(store.build, moving.value) : null))
  const live = computed((): Balance | null =>
    shown.value ? balanceOf(shown.value, store.choice, store.estimates) : null,
  )
  /** What is read, not watched, follows a hand thirty times a second; the drawings follow with every frame. */
  const balance = refThrottled(live, 30)
  /** What takes long to count is counted anew when a hand that moves a piece pauses. */
  const paused = refDebounced(shown, 150)
  const pausedBalance = refDebounced(balance, 150)
  const meetings = computed(() => (balance.value ? meetingsOf(balance.value.layout) : []))
  /** Keys of the pieces on their way; the same set as long as they are the same pieces. */
  const movingKeys = computed((before?: ReadonlySet<string>): ReadonlySet<string> => {
    const now = moving.value.map(({ lineId, number }) => pieceKey(lineId, number))
    return before?.size === now.length && now.every(key => before.has(key)) ? before : new Set(now)
  })

  /** Where everything sits while nothing is being moved: a pair is one by where it stood before the hand came. */
  const resting = computed(() =>
    store.build ? layoutOf(store.build, store.choice, store.estimates).pieces : ([] as readonly Piece[]),
  )
  /** The other one of a pair that stands on both sides alike: it moves in the mirror. */
  function mirrorOf({ key, lineId }: Piece): Piece | null {
    const rest = resting.value.find(one => one.key === key)
    if (!rest || Math.abs(rest.atMm[1]) < snapMm) return null
    const [x, y, z] = rest.atMm
    const isMirrored = ({ atMm }: Piece) => Math.hypot(atMm[0] - x, atMm[1] + y, atMm[2] - z) < 0.5
    return resting.value.find(one => one.key !== key && one.lineId === lineId && isMirrored(one)) ?? null
  }
  /** A piece at another place, its mirror with it. */
  function moved(piece: Piece, atMm: Vec3, more: Partial<PiecePlace> = {}): PiecePlace[] {
    const rounded = atMm.map(mm => Math.round(mm * 10) / 10) as unknown as Vec3
    const at = (one: Piece, side: 1 | -1): PiecePlace => ({
      ...placeOfPiece(one),
      xMm: rounded[0],
      yMm: side * rounded[1] + 0,
      zMm: rounded[2],
      ...more,
      ...(more.turnDeg === undefined ? {} : { turnDeg: side * more.turnDeg + 0 }),
    })
    const mirror = mirrorOf(piece)
    return mirror ? [at(piece, 1), at(mirror, -1)] : [at(piece, 1)]
  }
  const snapped = ([x, y, z]: Vec3): Vec3 => [x, Math.abs(y) < snapMm ? 0 : y, z]

  /** Keeps what is being moved. */
  function keep() {
    const places = moving.value
    if (places.length > 0) store.run({ type: 'places.put', pieces: places })
    moving.value = []
  }
  const keepSoon = useDebounceFn(keep, 500)
  onBeforeUnmount(keep)
  /** What is being moved is kept before another piece is. */
  function turnTo(piece: Piece) {
    if (!moving.value.some(one => one.lineId === piece.lineId && one.number === piece.number)) keep()
  }
  /** All motors at their end over the weight, by the computation of Packs; where pieces sit changes nothing in it. */
  const thrustToWeight = computed(() => {
    const { build, choice, estimates } = store
    if (!build) return null
    const { totalG } = balanceOf(build, choice, estimates)
    const { forecast } = sheetFlight(
      build,
      choice,
      totalG,
      flightPlanOf(build, lessonsFor(useFlightsStore(), build.id)),
    )
    const ratio = forecast?.thrustToWeightStart ?? null
    return ratio === null ? null : { ratio, atLeast: forecast!.start?.atLeast ?? false }
  })

  return {
    movingKeys,
    live,
    balance,
    paused,
    pausedBalance,
    /** Pieces that are in one place, or in the props. */
    meetings,
    thrustToWeight,
    /** Moves a piece without keeping it yet. */
    drag(piece: Piece, atMm: Vec3) {
      turnTo(piece)
      moving.value = moved(piece, snapped(atMm))
    },
    /** Moves a piece by a step of the keys; a while after the last step it is kept. */
    nudge(piece: Piece, by: Vec3) {
      turnTo(piece)
      moving.value = moved(piece, [piece.atMm[0] + by[0], piece.atMm[1] + by[1], piece.atMm[2] + by[2]])
      void keepSoon()
    },
    /** Puts a piece somewhere at once. True where it was taken. */
    put(piece: Piece, atMm: Vec3, more: Partial<PiecePlace> = {}): boolean {
      turnTo(piece)
      moving.value = []
      return store.run({ type: 'places.put', pieces: moved(piece, atMm, more) })
    },
    /** Lets a line's pieces sit where they usually do. */
    free(piece: Piece) {
      turnTo(piece)
      moving.value = []
      const of = store.build!.places?.pieces.filter(one => one.lineId === piece.lineId) ?? []
      if (of.length > 0)
        store.run({ type: 'places.free', pieces: of.map(({ lineId, number }) => ({ lineId, number })) })
    },
    keep,
  }
}

const [provideBalance, injectBalance] = createInjectionState(balanceOnView)
export { provideBalance }
/** What the station provides: each part of it is drawn anew by itself, not the page with it. */
export function useBalance() {
  const provided = injectBalance()
  if (!provided) throw new Error('Only the station Balance has a balance on view.')
  return provided
}
