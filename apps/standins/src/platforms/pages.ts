import type { Platform, PlatformStyle } from './platform.js';
import type { PlatformPost } from './posts.js';

const escape = (text: string): string => text.replace(/[&<>"']/g, (one) => `&#${one.charCodeAt(0)};`);

const page = (style: Pick<PlatformStyle, 'name' | 'colour'>, title: string, body: string): string => `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(title)}</title>
<style>
body{font:15px/1.45 system-ui,sans-serif;margin:0;background:#f4f2ee;color:#222}
header{background:${style.colour};color:#fff;padding:14px 24px;font-weight:600}header a{color:#fff;text-decoration:none}
main{max-width:760px;margin:20px auto;padding:0 16px}
article{background:#fff;border:1px solid #d9d4ca;padding:14px 16px;margin:0 0 14px}
article h2{margin:0 0 6px;font-size:17px}video{max-width:220px;max-height:260px;background:#222;float:right;margin:0 0 8px 14px}
.small{color:#666;font-size:13px}label{display:block;padding:6px 0}button{font:inherit;padding:8px 16px;margin:10px 8px 0 0}
article::after{content:"";display:block;clear:both}p.text{white-space:pre-wrap}
</style><header><a href="..">Made-up platforms</a> · ${escape(style.name)}</header><main>${body}</main></html>`;

function article(platform: Platform, post: PlatformPost, base: string): string {
  const { views, reactions } = platform.shown(post);
  const who = platform.style.accounts.find((one) => one.id === post.account)?.name ?? post.account;
  const tags = post.tags.map((tag) => `#${escape(tag.replace(/^#/, ''))}`).join(' ');
  return `<article id="${post.id}"><video controls preload="metadata" src="${base}/files/${post.sha256}.mp4"></video>
<h2><a href="${base}/p/${post.id}">${escape(post.title)}</a></h2><p class="text">${escape(post.text)}</p><p>${tags}</p>
<p class="small">${escape(who)} · ${new Date(post.publicMs).toISOString().slice(0, 16).replace('T', ' ')} UTC · seen ${views} times, ${reactions} liked it</p></article>`;
}

/** What the public sees of a platform. */
export function publicPage(platform: Platform, base: string): string {
  const posts = [...platform.posts.values()].filter((post) => post.state === 'public').sort((a, b) => b.publicMs - a.publicMs);
  const { style } = platform;
  const none = '<p>Nothing has been posted yet.</p>';
  return page(
    style,
    style.name,
    `<p>${escape(style.about)}</p>${
      posts
        .slice(0, 60)
        .map((post) => article(platform, post, base))
        .join('') || none
    }`,
  );
}

/** One post, or null where the public sees none. */
export function postPage(platform: Platform, id: string, base: string): string | null {
  const post = platform.posts.get(id);
  return post?.state === 'public' ? page(platform.style, post.title, article(platform, post, base)) : null;
}

/** Asks whoever owns accounts there which of them is meant. What was asked for goes along, to be answered. */
export function consentPage({ style }: Platform, asked: URLSearchParams, trouble: string | null): string {
  const carried = [...asked].map(([name, value]) => `<input type="hidden" name="${escape(name)}" value="${escape(value)}">`).join('');
  const choices = style.accounts
    .map(({ id, name }, i) => `<label><input type="radio" name="account" value="${escape(id)}"${i === 0 ? ' checked' : ''}> ${escape(name)}</label>`)
    .join('');
  const body =
    trouble === null
      ? `<article><h2>${escape(asked.get('client_id') ?? '')} would like to post for you</h2><p>Which account is it?</p>
<form method="post">${carried}${choices}<button name="answer" value="allow">Allow it</button><button name="answer" value="refuse">Do not</button></form></article>`
      : `<article><h2>This cannot be allowed</h2><p>${escape(trouble)}</p></article>`;
  return page(style, `${style.name}: a right to post`, body);
}

/** The five, for whoever looks for what was posted. */
export function platformList(platforms: readonly Platform[], base: string): string {
  const rows = platforms.map(
    ({ style }) => `<article><h2><a href="${base}/${style.id}/">${escape(style.name)}</a></h2><p>${escape(style.about)}</p></article>`,
  );
  return page({ name: 'the five', colour: '#444' }, 'Made-up platforms', rows.join(''));
}
