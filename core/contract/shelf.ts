import { z } from 'zod'
import { deviceStateSchema } from '../device/state'
import { shelfValueSchema } from '../shelf/shelf'

/** What the server answers of the shelf, the box, their devices and the supplier. */

export const holdingsAnswer = z.object({
  holdings: z.array(
    z.object({ pieceId: z.string(), shelfId: z.string(), kind: z.enum(['reserved', 'taken']), amount: z.number() }),
  ),
})
const shelfItem = z.object({ id: z.string(), value: shelfValueSchema })
export const shelfAnswer = z.object({ items: z.array(shelfItem) })
export const shelfItemAnswer = z.object({ item: shelfItem })

export const readingAnswer = z.object({ reading: z.object({ value: z.number(), steady: z.boolean() }) })
export const deviceAnswer = z.object({ state: deviceStateSchema })
export const offersAnswer = z.object({
  list: z.object({
    currency: z.string(),
    offers: z.array(
      z.object({
        wanted: z.object({ spec: z.string(), colour: z.string(), finish: z.string() }),
        article: z.string(),
        packs: z.array(z.object({ grams: z.number(), price: z.number(), stock: z.number() })),
      }),
    ),
  }),
})
