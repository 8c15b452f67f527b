import { scriptLines } from '../../files/script';
import applyBegin from './apply-begin.sh?raw';
import applyEnd from './apply-end.sh?raw';
import verifyBegin from './verify-begin.sh?raw';
import verifyEnd from './verify-end.sh?raw';

/** The fixed parts of apply.sh: between them stands a table with a line for each file, package and unit that is wanted. */
export const APPLY_BEGIN = scriptLines(applyBegin);
/** The lines of apply.sh after that table. */
export const APPLY_END = ['', ...scriptLines(applyEnd)];

/** The lines of verify.sh before what the links ask. */
export const VERIFY_BEGIN = [...scriptLines(verifyBegin), ''];
/** The lines of verify.sh after that. */
export const VERIFY_END = ['', ...scriptLines(verifyEnd)];
