/** What customers are written: the company's words and mark. */
export { LettersModule } from './letters.module.js';
export { CompanyLetters } from './company-letters.js';
