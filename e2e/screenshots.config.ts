import { defineConfig } from '@playwright/test';
import journeys from './playwright.config.js';

/** The same demo as the journeys, only to take the pictures of the README. */
export default defineConfig({ ...journeys, projects: [{ name: 'pictures', testDir: 'screenshots' }], reporter: 'list' });
