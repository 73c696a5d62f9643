import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { defineComponent } from 'vue'
import { createVuetify } from 'vuetify'
import { VForm } from 'vuetify/components/VForm'
import { VTextField } from 'vuetify/components/VTextField'
import LengthField from './LengthField.vue'
import NumberField from './NumberField.vue'
import ReadForm from './ReadForm.vue'

const Host = defineComponent({
  components: { ReadForm, LengthField, NumberField },
  props: { calm: Boolean },
  emits: ['done'],
  data: () => ({ wrist: 170, batch: 1 }),
  template:
    `<ReadForm :calm="calm" @done="$emit('done')"><LengthField v-model="wrist" label="Wrist" :least="80" ` +
    ':most="400" /><NumberField v-model="batch" label="Batch" :bounds="{ least: 1, most: 999, whole: true }" ' +
    '/><button type="submit">Go</button></ReadForm>',
})
const host = (calm = false) =>
  mount(Host, {
    attachTo: document.body,
    props: { calm },
    global: { plugins: [createVuetify()], components: { VForm, VTextField } },
  })

describe('a form', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
  })
  it('is done only while every field of it can be read, and shows the first that cannot', async () => {
    const wrapper = host()
    await wrapper.find('form').trigger('submit')
    await new Promise((done) => setTimeout(done))
    expect(wrapper.emitted('done')).toHaveLength(1)
    const [wrist, batch] = wrapper.findAll('input')
    await wrist!.setValue('abc')
    await wrapper.find('form').trigger('submit')
    await new Promise((done) => setTimeout(done))
    expect(wrapper.emitted('done')).toHaveLength(1)
    expect(wrapper.text()).toContain('“abc” is not a length.')
    expect(document.activeElement).toBe(wrist!.element)
    await wrist!.setValue('17 cm')
    await batch!.setValue('2.5')
    await wrapper.find('form').trigger('submit')
    await new Promise((done) => setTimeout(done))
    expect(wrapper.text()).toContain('Type a whole number from 1 to 999.')
    expect(wrapper.emitted('done')).toHaveLength(1)
    await batch!.setValue('3')
    await batch!.trigger('change')
    await wrapper.find('form').trigger('submit')
    await new Promise((done) => setTimeout(done))
    expect(wrapper.emitted('done')).toHaveLength(2)
    expect(wrapper.vm.batch).toBe(3)
    wrapper.unmount()
  })
  it('that is calm does not take Enter in a field for its button', async () => {
    for (const calm of [true, false]) {
      const wrapper = host(calm)
      const enter = new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true })
      wrapper.find('input').element.dispatchEvent(enter)
      expect(enter.defaultPrevented).toBe(calm)
      wrapper.unmount()
    }
  })
})
