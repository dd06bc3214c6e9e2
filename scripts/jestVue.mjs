import { readdirSync } from 'node:fs'
import { basename, join } from 'node:path'
import { transformSync } from '@swc/core'
import { compileScript, parse } from 'vue/compiler-sfc'

/** Components by their names, as the pages find them without an import. */
const COMPONENTS = new Map(
  readdirSync('app/components', { recursive: true })
    .filter((path) => path.endsWith('.vue'))
    .map((path) => [basename(path, '.vue'), join(process.cwd(), 'app/components', path)]),
)

/** Single-file components for the unit tests: script and template; styles are left out. */
export default {
  process(source, filename) {
    const { descriptor } = parse(source, { filename })
    const { content } = compileScript(descriptor, { id: basename(filename), inlineTemplate: true })
    const linked = content.replace(/_resolveComponent\("(\w+)"\)/g, (call, name) =>
      COMPONENTS.has(name) ? `require(${JSON.stringify(COMPONENTS.get(name))}).default` : call,
    )
    return transformSync(linked, {
      filename,
      sourceMaps: 'inline',
      jsc: { target: 'es2022', parser: { syntax: 'typescript' } },
      module: { type: 'commonjs' },
    })
  },
}
