import { relative, resolve, sep } from 'node:path';
import { ESLint } from 'eslint';
import ts from 'typescript';

/**
 * Types and lint of one half of the code, which is read once for both: `node scripts/check.mjs PROJECT PLACE…`. Ends with 1 where
 * either finds anything.
 */
const [project, ...places] = process.argv.slice(2);
const host = {
  getCurrentDirectory: () => process.cwd(),
  getCanonicalFileName: (name) => name,
  getNewLine: () => '\n',
};
const isWithin = (place, file) =>
  !relative(resolve(place), file).startsWith(`..${sep}`) && !file.includes('/node_modules/');
const { options, fileNames, errors } = ts.getParsedCommandLineOfConfigFile(
  project,
  {},
  {
    ...ts.sys,
    onUnRecoverableConfigFileDiagnostic: (diagnostic) => {
      throw new Error(ts.formatDiagnostic(diagnostic, host));
    },
  },
);
const program = ts.createProgram({ rootNames: fileNames, options, configFileParsingDiagnostics: errors });
// What it imports of the other half is checked there.
const own = program
  .getSourceFiles()
  .filter(({ fileName }) => places.some((place) => isWithin(place, fileName)));
const wrong = [
  ...program.getConfigFileParsingDiagnostics(),
  ...program.getOptionsDiagnostics(),
  ...program.getGlobalDiagnostics(),
  ...own.flatMap((file) => [
    ...program.getSyntacticDiagnostics(file),
    ...program.getSemanticDiagnostics(file),
  ]),
];
if (wrong.length) console.error(ts.formatDiagnosticsWithColorAndContext(wrong, host));

const eslint = new ESLint({
  overrideConfig: {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { project: null, programs: [program] } },
  },
});
const results = await eslint.lintFiles(places);
const told = (await eslint.loadFormatter('stylish')).format(results);
if (told) console.error(told);
process.exit(wrong.length || results.some((file) => file.errorCount + file.warningCount) ? 1 : 0);
