import { setUp } from '../browser/global-setup'

export default () => setUp('guest')
