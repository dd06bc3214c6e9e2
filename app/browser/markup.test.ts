/** @jest-environment jsdom */
import katex from 'katex'
import * as fc from 'fast-check'
import { createApp, defineComponent, h, nextTick, ref, withDirectives } from 'vue'
import { vMarkup } from './markup'

/** Markup whose texts alone have changed is changed in place, and is then what it would be anew. */

function mounted(first: string) {
  const markup = ref(first)
  const host = document.createElement('div')
  const app = createApp(defineComponent(() => () => withDirectives(h('span'), [[vMarkup, markup.value]])))
  app.mount(host)
  const show = async (next: string): Promise<void> => {
    markup.value = next
    await nextTick()
  }
  return { element: host.firstElementChild as HTMLElement, show, end: () => app.unmount() }
}

/** What the browser makes of it from nothing. */
function fresh(markup: string): string {
  const element = document.createElement('span')
  element.innerHTML = markup
  return element.innerHTML
}

const math = (latex: string): string => katex.renderToString(latex, { output: 'htmlAndMathml' })

test('figures of a formula change in the elements that are there', async () => {
  const { element, show, end } = mounted(math('\\frac{200}{s^2 + 1.25\\,s + 3}'))
  const inside = [...element.querySelectorAll('*')]
  const next = math('\\frac{210}{s^2 + 1.75\\,s + 4}')
  await show(next)
  expect(element.innerHTML).toBe(fresh(next))
  expect([...element.querySelectorAll('*')].every((one, k) => one === inside[k])).toBe(true)
  end()
})

test('another form is put in anew', async () => {
  const { element, show, end } = mounted(math('\\frac{1}{s}'))
  for (const latex of ['s + 1', '\\frac{1}{s + 1}', '\\sqrt{2}', 'x']) {
    await show(math(latex))
    expect(element.innerHTML).toBe(fresh(math(latex)))
  }
  end()
})

test('signs that stand for others are read', async () => {
  const { element, show, end } = mounted('<b>1 &lt; 2</b><i>a</i>')
  await show('<b>1 &amp; 2</b><i>b</i>')
  expect(element.textContent).toBe('1 & 2b')
  // They stay as they are while another text changes.
  await show('<b>1 &amp; 2</b><i>c</i>')
  expect(element.innerHTML).toBe('<b>1 &amp; 2</b><i>c</i>')
  end()
})

const text = fc.constantFrom('', '1', '2.5', 'x', ' ', '&lt;', 'a&amp;b', '−3')
const piece = fc.tuple(fc.constantFrom('b', 'i', 'span'), fc.constantFrom('', ' class="m"'), text)
const markups = fc.array(piece, { maxLength: 4 }).map((all) => all.map(([tag, more, inside]) => `<${tag}${more}>${inside}</${tag}>`).join('')) // prettier-ignore

test('whatever comes after whatever: the element is what it would be anew', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(markups, { minLength: 2, maxLength: 6 }), async ([first = '', ...rest]) => {
      const { element, show, end } = mounted(first)
      for (const next of rest) {
        await show(next)
        expect(element.innerHTML).toBe(fresh(next))
      }
      end()
    }),
    { numRuns: 150 },
  )
})
