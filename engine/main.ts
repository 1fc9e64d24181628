import { advanceMailings } from './advance-mailings'
import { beginEngine, doUntilTold } from './begin'
import { webhookCaller } from './call-webhooks'
import { checkDomains } from './check-domain'
import { linkChecker } from './check-links'
import { clockwork } from './clockwork'
import { dataSchedules } from './data-schedules'
import { handingOver } from './hand-over'
import { followSegments } from './follow-segments'
import { jobsApart } from './jobs-apart'
import { judgeActs } from './judge-acts'
import { feedReader } from './read-feeds'
import { retentionKeeper } from './keep-retention'
import { passOnReplies } from './pass-on-replies'
import { readReports } from './read-reports'
import { recoverClaims } from './recover-claims'
import { runSequences } from './run-sequences'
import { sender } from './send'
import { startDueMailings } from './start-mailings'
import { tellTeam } from './tell-team'
import { tryDeliveries } from './try-deliveries'
import { sendRequests } from './send-requests'
import { sendSignUps } from './send-sign-ups'
import { watchGoals } from './watch-goals'

/** The engine: all that goes on by itself. Long work that people ask for is done in a process of its own. */
const { engine, end } = beginEngine('engine')
const send = sender(engine)
const jobs = jobsApart(engine)
await doUntilTold(
  engine,
  [
    ['recover-claims', recoverClaims, 1_000],
    ['start-mailings', startDueMailings, 100],
    ['advance-mailings', advanceMailings, 200],
    ['run-sequences', runSequences, 200],
    ['send', send.step, 50],
    ['judge-acts', judgeActs, 150],
    ['read-reports', readReports, 300],
    ['pass-on-replies', passOnReplies, 500],
    ['send-requests', sendRequests, 300],
    ['send-sign-ups', sendSignUps, 200],
    ['call-webhooks', webhookCaller(), 300],
    ['hand-over', handingOver(), 300],
    ['tell-team', tellTeam, 1_000],
    ['follow-segments', followSegments, 2_000],
    ['watch-goals', watchGoals, 1_000],
    ['check-links', linkChecker(), 300],
    ['check-domain', checkDomains, 300],
    ['try-deliveries', tryDeliveries, 500],
    ['read-feeds', feedReader(), 300],
    ['data-schedules', dataSchedules, 1_000],
    ['keep-retention', retentionKeeper(), 5_000],
    ['clockwork', clockwork, 50],
  ],
  jobs.stop,
)
await Promise.all([send.close(), jobs.stopped])
end()
