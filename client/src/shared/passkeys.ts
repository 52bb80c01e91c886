/** Passkeys need a browser that has them and an address with a name: a number such as 127.0.0.1 cannot be signed for. */
export const hasPasskeys = () =>
  typeof PublicKeyCredential === 'function' &&
  'parseCreationOptionsFromJSON' in PublicKeyCredential &&
  !/^[\d.]+$|:/.test(window.location.hostname)

/** @throws When the person or the device says no. */
export async function makePasskey(options: string): Promise<string> {
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(
    JSON.parse(options) as PublicKeyCredentialCreationOptionsJSON,
  )
  return said(() => navigator.credentials.create({ publicKey }))
}

/** @throws When the person or the device says no. */
export async function answerWithPasskey(options: string): Promise<string> {
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(
    JSON.parse(options) as PublicKeyCredentialRequestOptionsJSON,
  )
  return said(() => navigator.credentials.get({ publicKey }))
}

async function said(ask: () => Promise<Credential | null>): Promise<string> {
  let credential
  try {
    credential = await ask()
  } catch (error) {
    if (error instanceof DOMException && error.name === 'InvalidStateError')
      throw new Error('This device has a passkey for you already.', { cause: error })
    throw new Error('The device gave no passkey. Try again, or sign in with your password.', { cause: error })
  }
  if (!credential) throw new Error('The device gave no passkey. Try again, or sign in with your password.')
  return JSON.stringify((credential as PublicKeyCredential).toJSON())
}
