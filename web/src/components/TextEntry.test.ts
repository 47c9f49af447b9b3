import { createApp, h, nextTick, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import { createVuetify } from 'vuetify'
import TextEntry from './TextEntry.vue'

describe('a field of text', () => {
  it.each([true, false])('with the browser\'s own control %s: keeps what is being typed while the page is drawn anew, and enters it once', async (many) => {
    const value = ref('Shuttle.Cmd.Position')
    const tick = ref(0)
    const entered: string[] = []
    const root = document.createElement('div')
    document.body.append(root)
    createApp({ render: () => [h('i', tick.value), h(TextEntry, { many, value: value.value, title: String(tick.value), onEnter: (t: string) => { entered.push(t); value.value = t } })] }).use(createVuetify()).mount(root)
    const input = root.querySelector('input')!
    input.focus()
    input.value = 'Shuttle.Cmd.Goal'
    input.dispatchEvent(new Event('input'))
    tick.value++
    await nextTick()
    expect(input.value).toBe('Shuttle.Cmd.Goal')
    input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }))
    await nextTick()
    input.dispatchEvent(new Event('change'))
    expect(entered).toEqual(['Shuttle.Cmd.Goal'])
    input.blur()
    value.value = 'other'
    await nextTick()
    expect(input.value).toBe('other')
  })
})
