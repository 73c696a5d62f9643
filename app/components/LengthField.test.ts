import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { createVuetify } from 'vuetify'
import { VTextField } from 'vuetify/components/VTextField'
import { useAccount } from '../stores/account'
import LengthField from './LengthField.vue'

const settings = {
  unit: 'mm',
  theme: 'day',
  hand: 'right',
  school: 'A',
  paper: 'A4',
  currency: 'EUR',
  supplier: 'well',
  benchHours: [1, 1, 1, 1, 1, 2, 2] as number[],
  learnSpeed: 'on',
  learnCull: 'on',
  learnThread: 'on',
  proved: 'off',
  letters: 'on',
} as const

function field(modelValue: number, props: { least?: number; most?: number } = {}) {
  return mount(LengthField, {
    props: { modelValue, label: 'Wrist', ...props },
    global: { plugins: [createVuetify()], components: { VTextField } },
  })
}

describe('a length field', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
  })

  it('shows millimetres, and gives millimetres for what is typed', async () => {
    const wrapper = field(170)
    expect(wrapper.find('input').element.value).toBe('170 mm')
    await wrapper.find('input').setValue('7 1/4 in')
    expect(wrapper.emitted('update:modelValue')!.at(-1)![0]).toBeCloseTo(184.15, 9)
  })
  it('shows inches to one who wants them', () => {
    useAccount().account = { id: 'x', signIn: 'x', settings: { ...settings, unit: 'in' } }
    expect(field(184.15).find('input').element.value).toBe('7 1/4 in')
  })
  it('keeps what cannot be read, says what to do, and gives nothing', async () => {
    const wrapper = field(170, { least: 80, most: 400 })
    await wrapper.find('input').setValue('long')
    expect(wrapper.text()).toContain('“long” is not a length.')
    expect(wrapper.find('input').element.value).toBe('long')
    await wrapper.find('input').setValue('20 mm')
    expect(wrapper.text()).toContain('At least 80')
    await wrapper.find('input').setValue('5 m')
    expect(wrapper.text()).toContain('At most 400')
    expect(wrapper.emitted('update:modelValue')).toBeUndefined()
  })
  it('follows the value when it is changed elsewhere, but not while someone types', async () => {
    const wrapper = field(170)
    await wrapper.setProps({ modelValue: 180 })
    expect(wrapper.find('input').element.value).toBe('180 mm')
    await wrapper.find('input').setValue('18 cm')
    await wrapper.setProps({ modelValue: 180.0001 })
    expect(wrapper.find('input').element.value).toBe('18 cm')
    await wrapper.find('input').trigger('blur')
    expect(wrapper.find('input').element.value).toBe('180.0 mm')
  })
})
