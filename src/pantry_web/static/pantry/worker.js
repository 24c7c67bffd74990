// Without the server: pages that were seen stay readable, and what is ticked or written down is
// kept and sent later, once, in its order and with its age.
"use strict";
const PAGES = "pages-1";
const FILES = "files-1";
const KEPT_PAGE = /^\/($|feasts\/\d+\/(passage\/)?$|shopping\/$|dishes\/\d+\/(mix|steps|notes|label|passage|weighing)\/$)/;
const KEPT_PRESS = /^\/(today\/|dishes\/\d+\/steps\/(turn|undo|note|begin)\/)/;
const FRESH_MS = 600000;

const store = (mode, work) => new Promise((resolve, reject) => {
  const opening = indexedDB.open("pantry-clock", 1);
  opening.onupgradeneeded = () => opening.result.createObjectStore("presses", { autoIncrement: true });
  opening.onerror = () => reject(opening.error);
  opening.onsuccess = () => {
    const doing = opening.result.transaction("presses", mode);
    const asked = work(doing.objectStore("presses"));
    doing.oncomplete = () => { resolve(asked.result); opening.result.close(); };
    doing.onerror = () => reject(doing.error);
  };
});

const keep = (press) => store("readwrite", (presses) => presses.add(press));
const forget = (key) => store("readwrite", (presses) => presses.delete(key));
const kept = async () => {
  const [keys, presses] = await Promise.all([store("readonly", (all) => all.getAllKeys()), store("readonly", (all) => all.getAll())]);
  return presses.map((press, at) => ({ ...press, key: keys[at] }));
};

// Whoever signed in anew has another token; without being signed in nothing is sent, and all is kept.
const token = async () => {
  const answer = await fetch("/", { credentials: "same-origin" });
  if (!answer.ok || new URL(answer.url).pathname !== "/") return null;
  return /name="csrfmiddlewaretoken" value="(\w+)"/.exec(await answer.text())?.[1] ?? null;
};

// One after the other, and each until it is answered: its key makes that once. What the server
// refuses stays to be seen, as it was typed, on the next page.
let sending = null;
const sendAll = () => {
  sending ??= (async () => {
    const presses = (await kept()).filter((press) => !press.refused);
    const sign = presses.length ? await token() : null;
    for (const press of sign ? presses : []) {
      const body = new URLSearchParams(press.body);
      body.set("csrfmiddlewaretoken", sign);
      body.set("age_s", Math.round((Date.now() - press.at) / 1000));
      const answer = await fetch(press.path, { method: "POST", body, redirect: "manual", credentials: "same-origin" });
      if (answer.status >= 500 || answer.status === 403) break;
      await forget(press.key);
      if (answer.status === 422) await keep({ refused: await answer.text() });
    }
  })().catch(() => {}).finally(() => { sending = null; });
  return sending;
};

const remember = async (request, answer) => {
  if (answer.status !== 200 || answer.redirected) return;
  const text = await answer.clone().text();
  const headers = { "Content-Type": "text/html; charset=utf-8", "X-Kept-At": String(Date.now()) };
  await (await caches.open(PAGES)).put(new URL(request.url).pathname, new Response(text, { headers }));
};

// A kept page says from when it is, and how much waits to be sent.
const fromBefore = async (path) => {
  const cache = await caches.open(PAGES);
  const page = (await cache.match(path)) ?? (await cache.match("/"));
  if (!page) return Response.error();
  const text = (await page.text()).replace("<body", `<body data-kept-at="${page.headers.get("X-Kept-At")}" data-waiting="${(await kept()).length}"`);
  return new Response(text, { headers: { "Content-Type": "text/html; charset=utf-8" } });
};

const page = async (request) => {
  await sendAll();
  const refused = (await kept()).find((press) => press.refused);
  if (refused) {
    await forget(refused.key);
    return new Response(refused.refused, { headers: { "Content-Type": "text/html; charset=utf-8" } });
  }
  try {
    const answer = await fetch(request);
    await remember(request, answer);
    return answer;
  } catch {
    return fromBefore(new URL(request.url).pathname);
  }
};

// What the list of today has looked up anew is what is read later.
const looked = async (request) => {
  const answer = await fetch(request);
  await remember(request, answer);
  return answer;
};

const press = async (request) => {
  const body = await request.clone().text();
  try {
    return await fetch(request);
  } catch {
    await keep({ path: new URL(request.url).pathname, body, at: Date.now() });
    return Response.redirect("/", 303); // so that no reload sends it a second time
  }
};

const file = async (request) => {
  const cache = await caches.open(FILES);
  const asked = fetch(request).then((answer) => { if (answer.ok) cache.put(request, answer.clone()); return answer; });
  const known = await cache.match(request);
  if (!known) return asked.catch(async (away) => {
    const older = await cache.match(request, { ignoreSearch: true }); // before the last change of the app
    if (older) return older;
    throw away;
  });
  asked.catch(() => {});
  return known;
};

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

self.addEventListener("fetch", (event) => {
  const url = new URL(event.request.url);
  if (url.origin !== location.origin) return;
  if (url.pathname.startsWith("/sign-out/")) event.waitUntil(caches.delete(PAGES));
  else if (url.pathname.startsWith("/static/")) event.respondWith(file(event.request));
  else if (event.request.headers.has("X-Seen")) event.respondWith(looked(event.request));
  else if (event.request.mode !== "navigate") return;
  else if (event.request.method === "GET" && KEPT_PAGE.test(url.pathname)) event.respondWith(page(event.request));
  else if (event.request.method === "POST" && KEPT_PRESS.test(url.pathname)) event.respondWith(press(event.request));
});

self.addEventListener("message", (event) => {
  const keepThose = async () => {
    await sendAll();
    const cache = await caches.open(PAGES);
    for (const path of event.data.keep ?? []) {
      const known = await cache.match(path);
      if (known && Date.now() - Number(known.headers.get("X-Kept-At")) < FRESH_MS) continue;
      const request = new Request(path);
      await remember(request, await fetch(request));
    }
  };
  event.waitUntil(keepThose().catch(() => {}));
});

self.addEventListener("notificationclick", (event) => {
  event.notification.close();
  event.waitUntil((async () => {
    const [open] = await self.clients.matchAll({ type: "window" });
    return open ? open.focus() : self.clients.openWindow("/");
  })());
});
