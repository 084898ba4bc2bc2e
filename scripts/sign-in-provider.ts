/*
 * npm run provider: a simulated provider on loopback, to try a desk that people sign in to through one. It prints the
 * settings for npm start. MORPHENE_PROVIDER_PORT says at which port; nothing of it is for real use.
 */
import { startSignInProvider } from '../demo/sign-in-provider'

const port = Number(process.env.MORPHENE_PROVIDER_PORT ?? 3430)
const provider = await startSignInProvider({
  port,
  client: 'morphene',
  secret: null,
  people: { quay: 'Mira Quay', ferry: 'Ned Ferry', tarn: 'Olu Tarn' },
}).catch((error: Error) => {
  console.error(`Port ${port}: ${error.message}. Set MORPHENE_PROVIDER_PORT to another one.`)
  process.exit(1)
})
console.log(
  `A provider is at ${provider.issuer}. Start the desk with\n` +
    `MORPHENE_OIDC_ISSUER=${provider.issuer} MORPHENE_OIDC_CLIENT=morphene MORPHENE_OIDC_NAME="Harbour office" npm start -- --sign-in`,
)
