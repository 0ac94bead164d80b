import { pathToFileURL } from 'node:url';
import type { Log, ReportingDescriptor, Result } from 'sarif';
import { pathText, problemText } from 'dot-hop';
import type { DocumentPath } from 'dot-hop';
import { findings } from 'dot-hop/check';
import { isBroken } from './checked.js';
import type { Broken, Checked } from './checked.js';

/** Everything that a report can speak of: findings, and the problems of documents that can not be compiled. */
interface Told {
  readonly code: string;
  readonly level: Result.level;
  readonly message: string;
  readonly file: string;
  readonly line: number;
  readonly column: number;
  readonly path: DocumentPath;
  readonly accepted?: string | undefined;
}

/** What was found in the form that editors and code hosts read. (OASIS SARIF 2.1.0) */
export function sarifOf(all: readonly (Checked | Broken)[]): Log {
  const told = all.flatMap((one): Told[] =>
    isBroken(one)
      ? one.problems.map((problem) => ({ ...problem, level: 'error', message: problemText(problem) }))
      : one.findings.map((finding) => ({ ...finding, level: finding.severity })),
  );
  const broken = [...new Set(told.map(({ code }) => code).filter((code) => !(code in findings)))];
  const rules: ReportingDescriptor[] = [
    ...Object.entries(findings).map(([id, { severity, title }]) => ({
      id,
      shortDescription: { text: title },
      defaultConfiguration: { level: severity },
    })),
    ...broken.map((id) => ({
      id,
      shortDescription: { text: 'the document cannot be compiled' },
      defaultConfiguration: { level: 'error' as const },
    })),
  ];
  const results = told.map(({ code, level, message, file, line, column, path, accepted }): Result => ({
    ruleId: code,
    ruleIndex: rules.findIndex(({ id }) => id === code),
    level,
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
  }));
  return {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [{ tool: { driver: { name: 'dot-hop', rules } }, columnKind: 'utf16CodeUnits', results }],
  };
}

/** A relative file stays relative, with slashes; an absolute one becomes an address. */
const uriOf = (file: string): string =>
  /^([A-Za-z]:)?[\\/]/.test(file) ? pathToFileURL(file).href : encodeURI(file.replaceAll('\\', '/'));
