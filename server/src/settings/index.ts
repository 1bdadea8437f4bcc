/** The choices that a company has made. */
export { SettingDto } from './settings.dto.js';
export { SettingsModule } from './settings.module.js';
export { SettingsService } from './settings.service.js';
export { keepSetting } from './keep-setting.js';
