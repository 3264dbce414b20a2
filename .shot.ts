import { chromium } from '@playwright/test';
const [, , out, path, ...acts] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const c = await b.newContext({
  viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) },
  javaScriptEnabled: !process.env.NOJS,
  colorScheme: (process.env.SCHEME as any) ?? 'light',
});
const p = await c.newPage();
p.on('console', (m) => m.type() === 'error' && console.log('console:', m.text().slice(0, 600)));
p.on('pageerror', (e) => console.log('pageerror', String(e).slice(0, 400)));
await p.goto('http://127.0.0.1:' + (process.env.PORT ?? 3111) + path, { waitUntil: 'networkidle' });
await p.waitForTimeout(Number(process.env.WAIT ?? 1200));
for (const a of acts) {
  await eval(`(async()=>{${a}})()`);
  await p.waitForTimeout(500);
}
await p.screenshot({ path: `/tmp/shots/${out}.png`, fullPage: Boolean(process.env.FULL) });
await b.close();
