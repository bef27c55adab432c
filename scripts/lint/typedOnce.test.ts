// @vitest-environment node
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ESLint } from 'eslint'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { typedOnce } from './typedOnce.js'

let root = ''
beforeAll(() => {
  root = mkdtempSync(join(tmpdir(), 'wild-spring-lint-'))
  mkdirSync(join(root, 'web'))
})
afterAll(() => rmSync(root, { recursive: true, force: true }))

/** What is found in files written to a folder of their own; `now` is text an editor holds instead of a file's. */
async function found(files: Record<string, string>, now?: { file: string; text: string }) {
  writeFileSync(
    join(root, 'tsconfig.json'),
    JSON.stringify({
      compilerOptions: { strict: true, module: 'ESNext', target: 'ES2023' },
      include: ['web'],
    }),
  )
  for (const [name, text] of Object.entries(files)) writeFileSync(join(root, name), text)
  const base = vue.configs['flat/base']
  const components = base.find((c) => c.languageOptions?.parser)!.languageOptions!.parser
  const parser = typedOnce(root, components)
  const lint = new ESLint({
    cwd: root,
    overrideConfigFile: true,
    overrideConfig: [
      ...base,
      { files: ['**/*.vue'], languageOptions: { parserOptions: { parser } } },
      { files: ['**/*.ts'], languageOptions: { parser } },
      {
        files: ['**/*.{ts,vue}'],
        plugins: { ts: tseslint.plugin },
        languageOptions: {
          parserOptions: { project: './tsconfig.json', tsconfigRootDir: root, extraFileExtensions: ['.vue'] },
        },
        rules: { 'ts/no-floating-promises': 'error' },
      },
    ] as ESLint.Options['overrideConfig'],
  })
  const results = now
    ? await lint.lintText(now.text, { filePath: join(root, now.file) })
    : await lint.lintFiles(['web/**/*.{ts,vue}'])
  return results
    .flatMap((r) =>
      r.messages.map((m) => `${r.filePath.slice(root.length + 1)}:${m.line} ${m.ruleId ?? m.message}`),
    )
    .sort()
}
const send = 'export async function send(): Promise<void> {}\n'
const component = (script: string) =>
  `<script setup lang="ts">\nimport { send } from '../web/send'\n${script}\n</script>\n\n<template>\n  <p @click="() => 1 + 1">{{ 'a' }}</p>\n</template>\n`

test('a promise that nobody waits for is found in a script and in a component, at its line', async () => {
  const said = await found({
    'web/send.ts': send,
    'web/late.ts': `import { send } from './send'\nsend()\n`,
    'web/Late.vue': component('send()'),
    'web/Waited.vue': component('await send()'),
    'web/Two.vue': `<script lang="ts">\nexport const a = 1\n</script>\n\n${component('\n\nsend()')}`,
  })
  expect(said).toEqual([
    'web/Late.vue:3 ts/no-floating-promises',
    'web/Two.vue:9 ts/no-floating-promises',
    'web/late.ts:2 ts/no-floating-promises',
  ])
})

test('text that an editor holds is what is read, not the file', async () => {
  const files = { 'web/send.ts': send, 'web/Late.vue': component('await send()') }
  expect(await found(files, { file: 'web/Late.vue', text: component('\nsend()') })).toEqual([
    'web/Late.vue:4 ts/no-floating-promises',
  ])
})
