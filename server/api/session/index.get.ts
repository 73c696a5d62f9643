import { answer } from '../../http/answer'
import { demoAllowed } from '../../http/demo'
import { findAccount } from '../../http/session'

export default answer(async (event) => ({ account: await findAccount(event), demo: demoAllowed(event) }))
