import type { DrawnLook } from './look'

/**
 * The style of a form, for the page it stands on by itself, a frame, and the place where it is designed. Every rule is
 * within `.sup`, so that it touches nothing around it.
 */
export function formStyle(look: DrawnLook): string {
  const { paper, ink, accent, onAccent, headingFont, textFont, corner } = look
  const soft = `color-mix(in srgb,${ink} 72%,${paper})`
  return `.sup{box-sizing:border-box;padding:26px 28px;background:${paper};color:${ink};font:15px/1.5 ${textFont};text-align:start;border-radius:${Math.min(corner, 16)}px;overflow-wrap:break-word}
.sup *{box-sizing:border-box}
.sup-logo{display:block;max-width:100%;height:auto;margin:0 0 18px}
.sup-parts{display:grid;gap:14px}.sup-parts.two{grid-template-columns:1fr 1fr}.sup-parts.two>:not(.half){grid-column:1/-1}
.sup h2{margin:0;font:700 22px/1.25 ${headingFont};color:inherit}
.sup p{margin:0;white-space:pre-line}
.sup-parts>h2+p,.sup-parts>:has(>h2)+:has(>p){margin-top:-8px}
.sup-picture{display:block;width:100%;height:auto;border-radius:${Math.min(corner, 12)}px}
.sup-field{display:block;margin:0;padding:0;border:0;min-width:0}
.sup-label{display:block;margin:0 0 5px;padding:0;font-weight:700;font-size:14px}
.sup-label small,.sup-help{font-weight:400;font-size:13px;color:${soft}}
.sup-help{display:block;margin:5px 0 0}
.sup-input{display:block;width:100%;min-height:44px;padding:9px 12px;font:inherit;font-size:16px;color:#1a1e18;background:#fff;border:1px solid #767c72;border-radius:${Math.min(corner, 10)}px}
.sup-input::placeholder{color:#6a7066;opacity:1}
.sup-choice,.sup-box{display:flex;gap:10px;align-items:flex-start;padding:5px 0;cursor:pointer}
.sup-choice input,.sup-box input{flex:none;width:20px;height:20px;margin:1px 0 0;accent-color:${accent}}
.sup-box{padding:2px 0;font-size:14px;line-height:1.45}.sup-box span{white-space:pre-line}
.sup-send{display:block;width:100%;min-height:46px;padding:10px 18px;font:700 16px/1.3 ${textFont};color:${onAccent};background:${accent};border:1px solid ${accent};border-radius:${Math.min(corner, 23)}px;cursor:pointer;text-align:center}
.sup-small{font-size:13px;line-height:1.45;color:${soft}}.sup a{color:inherit}
.sup-wrong{display:block;margin:5px 0 0;font-size:13.5px;font-weight:600;color:#a02b16}
.sup [aria-invalid=true]{border-color:#a02b16;box-shadow:0 0 0 1px #a02b16}
.sup-top{padding:11px 14px;background:#fdeeea;color:#7d2010;border-radius:6px;font-size:14px}
.sup-meant{display:flex;flex-wrap:wrap;gap:8px;align-items:center;margin:8px 0 0}
.sup-meant button{font:inherit;font-size:14px;min-height:36px;padding:5px 12px;color:${ink};background:transparent;border:1px solid currentColor;border-radius:${Math.min(corner, 18)}px;cursor:pointer}
.sup :focus-visible{outline:3px solid ${accent};outline-offset:2px}
.sup-trap{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}
@media(max-width:420px){.sup{padding:22px 18px}.sup-parts.two{grid-template-columns:1fr}}
@media(prefers-reduced-motion:no-preference){.sup-send{transition:filter .12s}.sup-send:hover{filter:brightness(1.12)}}`
}
