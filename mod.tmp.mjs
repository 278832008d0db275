import { parse } from '@babel/parser'; import { parse as sfc } from '@vue/compiler-sfc'; import fs from 'fs'; import path from 'path'; import {execSync} from 'child_process';
const APPLY = process.argv[2]==='apply'; const globs=process.argv[3]??'web';
const files=execSync(`find ${globs} -name '*.vue' -o -name '*.ts' ! -name '*.test.ts' ! -name '*.d.ts' -path '*${globs}*'`,{encoding:'utf8'}).trim().split('\n').filter(f=>!/app\/router\.ts|bench\/baseline\/|web\/base\/look|shop-sums\/sums\.ts$/.test(f)&&/\.(vue|ts)$/.test(f)&&!/\.test\.ts$|\.d\.ts$/.test(f));
const MEMBERS=process.argv[4]==='members';
const CONST=/^[A-Z][A-Z0-9_]+$/;
const looks=(t)=>/\p{L}{2,}/u.test(t)&&(/\p{L}[\p{L},.;:’]* +\p{L}/u.test(t)||/^\p{Lu}\p{Ll}{2,}/u.test(t)) && !/^[a-z]+(-[a-z]+)* [a-z]+(-[a-z]+)*$/.test(t)===true || /\p{L}{2,} \p{L}+ \p{L}/u.test(t);
const CALLS=/^(asSentence|capital|DomainError|refuse|notFoundX|InputProblem|fail|told|complain|warn_)$/;
let n=0; const seen=[];
const esc=t=>t.replace(/[{}]/g,b=>`'${b}'`);
function nameFor(values,src){ const known=values.find(v=>v.src===src); if(known) return known.name; const stripped=src.replace(/'[^']*'|"[^"]*"|`[^`]*`/g,''); const call=/([A-Za-z_]\w*)\s*\(/.exec(stripped)?.[1]; const ws=stripped.match(/[A-Za-z_]\w*/g)??[]; let base=(call&&!['String','Math','Number'].includes(call)&&!/^(round|min|max|abs|toFixed)$/.test(call)?call:(ws.filter(w=>!['value','props','String','Math','round','toFixed','min','max','abs'].includes(w)).at(-1)))??'value'; let name=base; for(let k=2;values.some(v=>v.name===name);k++) name=base+k; values.push({name,src}); return name; }
function work(source,file){ const ast=parse(source,{sourceType:'module',plugins:['typescript']}); const cuts=[];
 const src=(node)=>source.slice(node.start,node.end);
 const inner=(node)=>{ // code of an expression with its own literals said
   const c=[]; visit(node,c,true,false); let out=src(node); for(const k of c.sort((a,b)=>b.from-a.from)) out=out.slice(0,k.from-node.start)+k.with+out.slice(k.to-node.start); return out; };
 const SKIP=/^data:|px$|mm$|^repeat\(|^(make|known|run) \u0001$|^new-|^lavacrum\.|^photographs of|^ApiError$|^Atkinson|^\u0001 kB$|^\u0001 MB$/;
 const rootOf=(n)=>{while(n.type==='MemberExpression'||n.type==='OptionalMemberExpression'||n.type==='TSNonNullExpression') n=n.type==='TSNonNullExpression'?n.expression:n.object; return n.type==='Identifier'?n.name:'';};
 const PROPS=new Set(['label','words','short','title','meaning','consequence','name','hint','text','risk','caution','plain','long']);
 function lit(node,c){ if(MEMBERS&&(node.type==='MemberExpression'||node.type==='OptionalMemberExpression')&&CONST.test(rootOf(node))){ const last=node.property; if(node.computed||PROPS.has(last.name)) { const txt=src(node); if(!/^(THEN|SUMS|NUDGES|USUAL|STANDING|BY_NAME|COLOURS|STEPS|LANGUAGES|LABEL_SIZES|INSTRUMENT_KINDS|SHOWS_IN|PLACES|KITS)\b|^COOLANT_CLASSES\[[^\]]*\]$|^LEAK_SCHOOLS\[[^\]]*\]$|^STANDING\[/.test(txt)){ c.push({from:node.start,to:node.end,with:'say('+txt+')'}); seen.push([file,txt]); } } return true; } if(MEMBERS) { if(node.type==='StringLiteral') return true; if(node.type==='TemplateLiteral'){ node.expressions.forEach(e=>visit(e,c,true,false)); return true;} return false; } const raw=node.type==='StringLiteral'?node.value:node.type==='TemplateLiteral'?node.quasis.map(q=>q.value.cooked).join('\u0001'):''; if(SKIP.test(raw)) return true; if(node.type==='StringLiteral'){ if(looks(node.value)) {c.push({from:node.start,to:node.end,with:`say(${src(node)})`}); seen.push([file,node.value]);} return true;}
  if(node.type==='TemplateLiteral'){ const text=node.quasis.map(q=>q.value.cooked).join('\u0001'); const joined=text.replace(/\u0001/g,'x');
    if(/^\/|^https?:|^M\$|^url\(|^#|\.ics|^rotate|^translate|^calc/.test(text)||!/\p{L}{2,}/u.test(text.replace(/\u0001/g,' '))) { node.expressions.forEach(e=>visit(e,c,true,false)); return true; }
    if(!(/\p{L}{2,} |^ ?\p{L}{3,}| \p{L}{2,}|\p{L}{3,}: /u.test(text.replace(/\u0001/g,' ')))) { node.expressions.forEach(e=>visit(e,c,true,false)); return true;}
    const values=[]; let msg=''; node.quasis.forEach((q,i)=>{ msg+=esc(q.value.cooked); const e=node.expressions[i]; if(e){ const code=inner(e); msg+=`{${nameFor(values,code)}}`; } });
    c.push({from:node.start,to:node.end,with:`say(${JSON.stringify(msg).replace(/^"|"$/g,"'").replace(/\\"/g,'"').replace(/(?<=.)'(?=.)/g,(m,o,s)=>o===0||o===s.length-1?m:"\\'")}, { ${values.map(v=>v.name===v.src?v.name:`${v.name}: ${v.src}`).join(', ')} })`}); seen.push([file,msg]); return true; }
  return false; }
 // pos: value position
 function visit(node,c,pos,table){ if(!node||typeof node.type!=='string') return; 
  if(pos&&!table&&lit(node,c)) return;
  switch(node.type){
   case 'ImportDeclaration': case 'TSTypeAnnotation': case 'TSTypeAliasDeclaration': case 'TSInterfaceDeclaration': case 'ExportAllDeclaration': return;
   case 'CallExpression': { const callee=src(node.callee); const last=callee.split('.').at(-1);
     if(callee==='say'||callee==='$say') return;
     visit(node.callee,c,false,table);
     const take = /^notices\.say$|^notices\?\.say$/.test(callee)||CALLS.test(last)||['push','join','filter','map','flatMap','computed','unshift'].includes(last)||last==='submitX';
     node.arguments.forEach((a,i)=>visit(a,c,(take&&!(last==='refuse'&&i===0))||['ArrowFunctionExpression','FunctionExpression','ObjectExpression'].includes(a.type),table)); return; }
   case 'NewExpression': { const cal=src(node.callee); node.arguments.forEach((a,i)=>visit(a,c,cal==='DomainError'&&i>0,table)); return; }
   case 'BinaryExpression': if(node.operator==='+') {visit(node.left,c,pos,table);visit(node.right,c,pos,table);} return;
   case 'VariableDeclarator': { const t=node.id.type==='Identifier'&&CONST.test(node.id.name); visit(node.init,c,true,t); return; }
   case 'ObjectProperty': if(node.computed) visit(node.key,c,false,table); { const k=node.key.name??node.key.value; const skip=['id','key','type','class','style','d','path','to','icon','accept','mode','kind','from','variant'].includes(k); visit(node.value,c,!skip,table);} return;
   case 'ConditionalExpression': visit(node.test,c,false,table); visit(node.consequent,c,pos,table); visit(node.alternate,c,pos,table); return;
   case 'LogicalExpression': visit(node.left,c,pos&&node.operator!=='&&',table); visit(node.right,c,pos,table); return;
   case 'IfStatement': visit(node.test,c,false,table); visit(node.consequent,c,false,table); visit(node.alternate,c,false,table); return;
   case 'SwitchCase': node.consequent.forEach(x=>visit(x,c,false,table)); return;
   case 'ReturnStatement': visit(node.argument,c,true,false); return;
   case 'ArrowFunctionExpression': visit(node.body,c,true,false); return;
   case 'AssignmentExpression': visit(node.right,c,true,table); return;
   case 'MemberExpression': case 'OptionalMemberExpression': visit(node.object,c,false,table); return;
   case 'ArrayExpression': node.elements.forEach(e=>visit(e,c,pos,table)); return;
   case 'ObjectExpression': node.properties.forEach(e=>visit(e,c,true,table)); return;
   case 'SpreadElement': visit(node.argument,c,pos,table); return;
   case 'TSAsExpression': case 'TSSatisfiesExpression': case 'TSNonNullExpression': case 'ParenthesizedExpression': case 'AwaitExpression': visit(node.expression??node.argument,c,pos,table); return;
   case 'TemplateLiteral': node.expressions.forEach(e=>visit(e,c,false,table)); return;
   case 'TaggedTemplateExpression': return;
   case 'ThrowStatement': visit(node.argument,c,false,table); return;
   case 'UnaryExpression': return;
  }
  for(const k of Object.keys(node)) { if(['loc','leadingComments','trailingComments','typeAnnotation','returnType','typeParameters','id','params'].includes(k)) continue; const v=node[k]; (Array.isArray(v)?v:[v]).forEach(x=>x&&typeof x.type==='string'&&visit(x,c,false,table)); } }
 visit(ast.program,cuts,false,false);
 let out=source; for(const k of cuts.sort((a,b)=>b.from-a.from)) out=out.slice(0,k.from)+k.with+out.slice(k.to);
 if(cuts.length&&!/import \{[^}]*\bsay\b[^}]*\} from '[^']*words\/say\.js'/.test(out)) { const web=file.startsWith('web/'); let rel=web?'@core/base/words/say.js':path.relative(path.dirname(file),'core/base/words/say.js'); if(!web&&!rel.startsWith('.')) rel='./'+rel; const m=new RegExp(`import \\{([^}]*)\\} from '${rel.replace(/[.\/]/g,'\\$&')}';`).exec(out); out = m? out.replace(m[0],`import {${m[1].trimEnd()}, say } from '${rel}';`): (out.startsWith('\n')?'\n':'')+`import { say } from '${rel}';\n`+out.replace(/^\n/,''); }
 return [out,cuts.length]; }
for(const f of files){ const s=fs.readFileSync(f,'utf8'); let out=s,k=0;
 if(f.endsWith('.vue')){ const d=sfc(s).descriptor; for(const b of [d.scriptSetup]) if(b){ const [o,c]=work(b.content,f); k+=c; out=out.slice(0,b.loc.start.offset)+o+out.slice(b.loc.end.offset);} }
 else [out,k]=work(s,f);
 n+=k; if(APPLY&&k) fs.writeFileSync(f,out); }
for(const [f,t] of seen) console.log(f+' | '+t); console.error(n);
