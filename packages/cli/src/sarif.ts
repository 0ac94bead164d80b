import { pathToFileURL } from 'node:url';
import { pathText } from 'dot-hop';
import { findings } from 'dot-hop/check';
import type { FindingCode } from 'dot-hop/check';
import type { Checked } from './commands/check.js';

/** What was found in the form that editors and code hosts read. (OASIS SARIF 2.1.0) */
export function sarifOf(checked: readonly Checked[]): unknown {
  const rules = Object.entries(findings).map(([id, { severity, title }]) => ({
    id,
    shortDescription: { text: title },
    defaultConfiguration: { level: severity },
  }));
  const results = checked.flatMap(({ findings: found }) =>
    found.map(({ code, severity, message, file, line, column, path, accepted }) => ({
      ruleId: code,
      ruleIndex: (Object.keys(findings) as FindingCode[]).indexOf(code),
      level: severity,
      message: { text: message },
      locations: [
        {
          physicalLocation: {
            artifactLocation: { uri: file === '(standard input)' ? 'stdin' : uriOf(file) },
            region: { startLine: line, startColumn: column },
          },
          logicalLocations: [{ fullyQualifiedName: pathText(path) }],
        },
      ],
      ...(accepted !== undefined && { suppressions: [{ kind: 'inSource', justification: accepted }] }),
    })),
  );
  return {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [{ tool: { driver: { name: 'dot-hop', rules } }, columnKind: 'utf16CodeUnits', results }],
  };
}

/** A relative file stays relative, with slashes; an absolute one becomes an address. */
const uriOf = (file: string): string =>
  /^([A-Za-z]:)?[\\/]/.test(file) ? pathToFileURL(file).href : encodeURI(file.replaceAll('\\', '/'));
