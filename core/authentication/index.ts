/** Whether a domain's records let providers know its mail: SPF, DKIM and DMARC, evaluated from what name servers say. */
export { checkDomain } from './check-domain'
export type { DomainCheck, RecordCheck, Verdict } from './check-domain'
export { mendSpf, mendDmarc } from './records'
export type { Resolve } from './names'
export { recordsToPublish } from './records'
export type { DnsRecord, SendingDomain } from './records'
