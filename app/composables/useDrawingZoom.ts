import { select, zoom, zoomIdentity, type D3ZoomEvent } from 'd3'

/** What a drawing shows, in its own units. */
export interface DrawingBox {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** So many times the whole. Our choice: the smallest pieces are then as large as a thumb. */
const most = 8
const step = 1.5

/** Lengths a scale bar may have; it takes at most this share of the drawing. */
const bars = [1, 2, 5, 10, 20, 50, 100]
const barShare = 0.3

/**
 * Lets a drawing be come nearer to and moved about: by two fingers, by the wheel with Ctrl, on its ground by hand, by
 * `nearer`, `farther` and `whole`. What `holds` says is in a hand is left alone; `taken` is called when two fingers come.
 */
export function useDrawingZoom(
  svg: Readonly<Ref<SVGSVGElement | null>>,
  box: Readonly<Ref<DrawingBox>>,
  holds: (target: Element) => boolean,
  taken: () => void,
) {
  const at = shallowRef(zoomIdentity)
  type Kind = MouseEvent | TouchEvent | WheelEvent
  const zoomer = zoom<SVGSVGElement, unknown>()
    .scaleExtent([1, most])
    .filter((event: Kind) => {
      if (event.type === 'wheel') return event.ctrlKey || event.metaKey
      if ('touches' in event) return event.touches.length > 1 || (at.value.k > 1 && !holds(event.target as Element))
      return event.button === 0 && !holds(event.target as Element)
    })
    .on('start', ({ sourceEvent }: D3ZoomEvent<SVGSVGElement, unknown>) => {
      if (sourceEvent && 'touches' in (sourceEvent as Kind) && (sourceEvent as TouchEvent).touches.length > 1) taken()
    })
    .on('zoom', ({ transform }: D3ZoomEvent<SVGSVGElement, unknown>) => {
      at.value = transform
    })
  const drawing = () => select(svg.value!)
  watch([svg, box], () => {
    if (!svg.value) return
    const { x, y, width, height } = box.value
    const ends: [[number, number], [number, number]] = [
      [x, y],
      [x + width, y + height],
    ]
    drawing().call(zoomer.extent(ends).translateExtent(ends)).on('dblclick.zoom', null)
  })
  const by = (factor: number) => {
    drawing().call(zoomer.scaleBy.bind(zoomer), factor)
  }
  /** A length that reads well at this distance, and how long it is drawn. */
  const bar = computed(() => {
    const mm = bars.findLast(one => one * at.value.k <= barShare * box.value.width) ?? bars[0]!
    return { mm, drawn: mm * at.value.k }
  })
  return {
    at,
    bar,
    nearer: () => {
      by(step)
    },
    farther: () => {
      by(1 / step)
    },
    whole: () => {
      drawing().call(zoomer.transform.bind(zoomer), zoomIdentity)
    },
  }
}
