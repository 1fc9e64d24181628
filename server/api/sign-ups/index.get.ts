import { readSignUps } from '~~/database/sign-ups'

export default defineEventHandler(() => readSignUps(satchel().db, satchel().clock()))
