// Compiles the server with the OpenAPI plugin, which reads response and request shapes from the types.
import ts from 'typescript';
import { before } from '@nestjs/swagger/plugin';

const here = import.meta.dirname;
const host = {
  ...ts.sys,
  onUnRecoverableConfigFileDiagnostic: (d) => {
    throw new Error(ts.flattenDiagnosticMessageText(d.messageText, '\n'));
  },
};
const config = ts.getParsedCommandLineOfConfigFile(`${here}/tsconfig.build.json`, {}, host);
const program = ts.createProgram({ rootNames: config.fileNames, options: config.options });
const plugin = before({ classValidatorShim: true, introspectComments: true, dtoFileNameSuffix: ['.dto.ts'] }, program);
const emitted = program.emit(undefined, undefined, undefined, false, { before: [plugin] });
const faults = [...ts.getPreEmitDiagnostics(program), ...emitted.diagnostics];
if (faults.length > 0) {
  const format = { getCanonicalFileName: (f) => f, getCurrentDirectory: () => here, getNewLine: () => '\n' };
  process.stderr.write(ts.formatDiagnosticsWithColorAndContext(faults, format));
  process.exit(1);
}
