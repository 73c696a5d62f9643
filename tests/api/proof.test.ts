import { beforeAll, describe, expect, inject, it } from 'vitest'
import { proofAnswer } from '#core/contract/answers'
import { pieceToBody } from '#core/piece/codec'
import type { Piece } from '#core/piece/piece'
import { meanStep } from '#core/proof/meant'
import { proofOf } from '#core/proof/proof'
import { SAMPLER } from '../../demo/sampler'
import { client, person } from './client'

const address = inject('address')
let weaver: Awaited<ReturnType<typeof person>>
beforeAll(async () => {
  weaver = await person(address)
})

const created = async (p: Piece) => (await weaver.call<{ id: string }>('POST', 'piece', pieceToBody(p))).body.id
const proof = async (id: string) => proofAnswer.parse((await weaver.call('GET', `piece/${id}/proof`)).body).proof

describe('the proof of a piece', () => {
  it('is what the core says of it, and quiet of what is meant so', async () => {
    const id = await created(SAMPLER)
    const said = await proof(id)
    expect(said.open.map((f) => [f.rule, f.says])).toEqual(proofOf(SAMPLER).open.map((f) => [f.rule, f.says]))
    const odd = proofOf(SAMPLER).open.find((f) => f.rule === 'odd')!
    const step = meanStep(SAMPLER, odd, 'as grandmother had it')
    const saved = await weaver.call('POST', `piece/${id}/step`, {
      base: 0,
      transactions: [{ id: 'meant-so-12345', label: 'It is meant so', steps: [step] }],
    })
    expect(saved.status).toBe(200)
    const then = await proof(id)
    expect(then.quiet.map((f) => [f.rule, f.says, f.meant])).toEqual([['odd', odd.says, 'as grandmother had it']])
    expect(then.open).toHaveLength(said.open.length - 1)
  })

  it('is for whoever is signed in, and asked again and again it is refused for a while', async () => {
    const id = await created(SAMPLER)
    expect((await client(address).call('GET', `piece/${id}/proof`)).status).toBe(401)
    const many = await Promise.all(Array.from({ length: 70 }, () => weaver.call('GET', `piece/${id}/proof`)))
    expect(many.some(({ status }) => status === 429)).toBe(true)
  })
})
