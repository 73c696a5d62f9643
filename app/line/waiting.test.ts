import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { clear, createStore } from 'idb-keyval'
import { keepWaiting, letGoWaiting, waitingOf, type Waiting } from './waiting'

const event = (id: string, at: number, account = 'me'): Waiting => ({
  ...{ account, piece: 'cuff', making: 'first' },
  kept: { id, at, event: { do: 'at', task: 'band/1/0', bite: 0, says: 'Row 1', beads: 0, of: 8 } },
})
const idsOf = async (account = 'me') => (await waitingOf(account)).map(({ kept }) => kept.id)
const written = () => Object.keys(localStorage).filter((key) => key.startsWith('weben-bench-waiting'))

beforeEach(async () => {
  localStorage.clear()
  await clear(createStore('weben-bench-waiting', 'event'))
})
afterEach(() => {
  vi.unstubAllGlobals()
})

describe('what waits of the bench', () => {
  it('is written down in the moment in which it happens, and then put where it belongs', async () => {
    keepWaiting(event('one', 1))
    expect(written()).toHaveLength(1)
    await vi.waitFor(() => {
      expect(written()).toEqual([])
    })
    expect(await idsOf()).toEqual(['one'])
  })
  it('is there after a page was closed in that moment', async () => {
    keepWaiting(event('later', 2))
    const [key] = written()
    const text = localStorage.getItem(key!)!
    await letGoWaiting([event('later', 2)])
    await vi.waitFor(() => {
      expect(written()).toEqual([])
    })
    // As the closed page left it: IndexedDB never had it.
    localStorage.setItem(key!, text)
    keepWaiting(event('first', 1))
    keepWaiting(event('theirs', 1, 'you'))
    expect(await idsOf()).toEqual(['first', 'later'])
    expect(await idsOf('you')).toEqual(['theirs'])
    expect(written()).toEqual([])
  })
  it('is let go once, wherever it stands', async () => {
    const all = [event('one', 1), event('two', 2)]
    all.forEach(keepWaiting)
    await letGoWaiting([all[0]!])
    expect(await idsOf()).toEqual(['two'])
    await letGoWaiting([all[1]!])
    expect([await idsOf(), written()]).toEqual([[], []])
  })
  it('is kept all the same where nothing can be written at once, or what is there cannot be read', async () => {
    const refused = vi.fn(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    const broken = {
      'setItem': refused,
      'removeItem': refused,
      'getItem': () => '{',
      'weben-bench-waiting me first bad': '{',
    }
    vi.stubGlobal('localStorage', broken)
    keepWaiting(event('one', 1))
    expect(refused).toHaveBeenCalled()
    await vi.waitFor(async () => {
      expect(await idsOf()).toEqual(['one'])
    })
  })
})
