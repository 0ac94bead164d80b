import type { Finding } from '../check/finding.js';
import type { Place, Source } from './source.js';

/**
 * Whether a finding says that something is unused although it stands in a base. Other documents that build on the base may use it.
 *
 * @param place where the finding is
 * @param source the document that was checked
 */
export const isForOthers = ({ code }: Pick<Finding, 'code'>, { file }: Place, source: Source): boolean =>
  code.endsWith('-unused') && file !== source.file;
