/** The settings one may change. The keys stay here. */
export default defineEventHandler(() => {
  const {
    name,
    zone,
    currency,
    sender_name,
    sender_address,
    postal_address,
    pace_per_minute,
    cap_mailings,
    cap_days,
    callback_seconds,
    dkim_selector,
  } = account()
  return {
    name,
    zone,
    currency,
    sender_name,
    sender_address,
    postal_address,
    pace_per_minute,
    cap_mailings,
    cap_days,
    callback_seconds,
    dkim_selector,
    sends: satchel().sends,
    url: satchel().url,
  }
})
