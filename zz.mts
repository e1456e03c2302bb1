import { EFFECTS } from './src/core/effects/catalogue';
import { newSlot } from './src/core/piece/edits/chain';
import { treat } from './src/core/engine/treat';
import { loudness } from './src/core/analysis/loudness';
import { makeSaltPier } from './src/core/sounds/saltPier';
let n=0; const demo = makeSaltPier(() => String(n++).padStart(64,'0'));
const named=(s:string)=>{const [h]=Object.entries(demo.piece.sounds).find(([,v])=>v.name.startsWith(s))!; return demo.sounds.find(x=>x.hash===h)!.channels;};
const sec=5, N=sec*48000; const mix=[0,1].map(c=>{const o=new Float32Array(N); for(const [s,g] of [['Kalimba, ebb',1],['Hum, first',.7],['Crates',1],['Foghorn, swell 1',.7]] as const){const ch=named(s); const x=ch[c]??ch[0]!; for(let i=0;i<N;i++) o[i]=o[i]!+g*x[i+24000]!;} return o;});
let pk=0; for(const c of mix) for(const x of c) pk=Math.max(pk,Math.abs(x)); for(const c of mix) for(let i=0;i<c.length;i++) c[i]=c[i]!*0.5/pk;
const dry=loudness(mix,48000).integrated; const only=process.argv[2];
for (const e of EFFECTS) { if(only&&!only.split(',').includes(e.id)) continue; for (const p of e.presets) { const slot=newSlot('s',e.id,p.id); 
  const r=treat({sound:mix as never,sampleRate:48000,bpm:92,chain:[slot],tail:{kind:'seconds',seconds:1},hear:'mix'})!;
  const l=loudness([r.left,r.right],48000).integrated, pl=loudness([r.left],48000).integrated, pr=loudness([r.right],48000).integrated; const d=l-dry;
  console.log(Math.abs(d)>5?'***':'   ',e.id,p.id,d.toFixed(1),'L-R',(pl-pr).toFixed(1)); } }
