import { TestShop } from '../tests/support/test-shop'
import { writeFileSync } from 'node:fs'
const shop = await TestShop.open('scenario')
writeFileSync('/tmp/look.url', shop.url)
process.on('SIGTERM', () => void shop.close().then(() => process.exit(0)))
