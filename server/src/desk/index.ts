/** What looks at the whole house at once: Now, the Line, find, look-up, the tape. */
export { DeskModule } from './desk.module.js';
