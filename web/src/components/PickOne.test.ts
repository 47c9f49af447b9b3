import { createApp, h, nextTick, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import { createVuetify } from 'vuetify'
import PickOne from './PickOne.vue'

/** How often the list of choices has been drawn again. */
function redrawn(options: () => unknown[]) {
  let times = 0
  const turn = ref(0)
  const vuetify = createVuetify()
  const root = document.createElement('div')
  document.body.append(root)
  const app = createApp({ render: () => h(PickOne, { label: 'Kind', value: 'A', options: turn.value >= 0 ? options() : [] } as never) }).use(vuetify)
  app.mixin({ beforeUpdate(this: { $options: { name?: string } }) { if (this.$options.name === 'VSelect') times++ } })
  app.mount(root)
  return { times: () => times, again: async () => { turn.value++; await nextTick() } }
}

function shown(props: Record<string, unknown>) {
  const picked: string[] = []
  const root = document.createElement('div')
  document.body.append(root)
  createApp({ render: () => h(PickOne, { label: 'Kind', value: 'A', options: [], ...props, onPick: (code: string) => picked.push(code) } as never) }).use(createVuetify()).mount(root)
  return { root, picked }
}

describe('one of several', () => {
  it('is the browser\'s own control where there are many of them', async () => {
    const { root, picked } = shown({ many: true, options: [{ code: 'A', words: 'first' }, { code: 'B', words: 'second' }, { code: 'C', words: 'third', disabled: true }] })
    const select = root.querySelector('select')!
    expect(select.getAttribute('aria-label')).toBe('Kind')
    expect([...select.options].map((o) => o.text)).toEqual(['first', 'second', 'third'])
    expect(select.options[2].disabled).toBe(true)
    select.value = 'B'
    select.dispatchEvent(new Event('change'))
    await nextTick()
    expect(picked).toEqual(['B'])
  })

  it('shows the words of what is chosen, numbers too, and is named', () => {
    const { root } = shown({ value: 5, options: [1, { code: 5, words: '×5' }] })
    expect(root.textContent).toContain('×5')
    expect(root.querySelector('input:not([type=hidden])')!.getAttribute('aria-label')).toBe('Kind')
  })

  it('is not drawn again for a new list of the same choices, and is for other ones', async () => {
    let words = 'first'
    const { times, again } = redrawn(() => [{ code: 'A', words }, 'B'])
    await again()
    await again()
    expect(times()).toBe(0)
    words = 'another'
    await again()
    expect(times()).toBe(1)
  })
})
