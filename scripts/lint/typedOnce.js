// Rules that know types, asked of one program. Left to itself, the parser makes the program anew for each
// component, since a component's script is not what stands on the disk; two thirds of the time went there.
import { readFileSync } from 'node:fs'
import ts from 'typescript'
import { parser as scripts } from 'typescript-eslint'

const isComponent = (file) => file.endsWith('.vue')
/** Which script of a component is asked about with types: told by what its parser hands on with a project. */
function scriptOf(file, components) {
  let script = ''
  components.parseForESLint(readFileSync(file, 'utf8'), {
    filePath: file,
    sourceType: 'module',
    project: true,
    parser: {
      parseForESLint(code, { project, ...options }) {
        if (project) script = code
        return scripts.parseForESLint(code, options)
      },
    },
  })
  return script
}
/** One program of all files that the settings of the compiler name; components by their scripts. */
function programOf(root, components) {
  const { config } = ts.readConfigFile(`${root}/tsconfig.json`, ts.sys.readFile)
  const { fileNames, options } = ts.parseJsonConfigFileContent(
    config,
    ts.sys,
    root,
    {},
    undefined,
    undefined,
    [{ extension: '.vue', isMixedContent: true, scriptKind: ts.ScriptKind.Deferred }],
  )
  const host = ts.createCompilerHost(options, true)
  const read = host.getSourceFile
  host.getSourceFile = (file, language, ...rest) =>
    isComponent(file)
      ? ts.createSourceFile(file, scriptOf(file, components), language, true, ts.ScriptKind.TS)
      : read.call(host, file, language, ...rest)
  return ts.createProgram(fileNames, { ...options, allowNonTsExtensions: true }, host)
}

/**
 * A parser for scripts that answers questions of types from one program, made when the first is asked.
 * Text that is not what the program read (a file being edited) is given to the parser as it came.
 */
export function typedOnce(root, components) {
  let program
  return {
    meta: { name: 'typed-once', version: '1' },
    parseForESLint(code, options) {
      if (!options.project) return scripts.parseForESLint(code, options)
      program ??= programOf(root, components)
      const known = program.getSourceFile(options.filePath)?.text === code
      if (!known) return scripts.parseForESLint(code, options)
      const { project: _, extraFileExtensions: __, ...rest } = options
      return scripts.parseForESLint(code, { ...rest, programs: [program] })
    },
  }
}
