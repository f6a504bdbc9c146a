import type { WebDriver } from 'selenium-webdriver';
export function openBrowser(options?: { width?: number; height?: number; args?: string[] }): Promise<WebDriver>;
