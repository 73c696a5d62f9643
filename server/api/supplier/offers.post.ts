import { z } from 'zod'
import { FINISHES } from '../../../core/bead/bead'
import { specId } from '../../../core/bead/schema'
import { answer } from '../../http/answer'
import { readJson } from '../../http/read'
import { requireAccount } from '../../http/session'
import { sampleSupplier } from '../../supplier/supplier'

const bodySchema = z.strictObject({
  wanted: z
    .array(z.strictObject({ spec: specId, colour: z.string().regex(/^#[0-9a-f]{6}$/), finish: z.enum(FINISHES) }))
    .max(400),
})

export default answer(async (event) => {
  const { settings } = await requireAccount(event)
  const { wanted } = await readJson(event, bodySchema)
  return { list: await sampleSupplier(settings.supplier, settings.currency).offers(wanted) }
})
