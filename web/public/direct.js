// What is asked by POST is never answered from what the worker keeps: it goes to the server without waking it.
self.addEventListener("install", (event) => {
  if (event.addRoutes) event.waitUntil(event.addRoutes([{ condition: { requestMethod: "POST" }, source: "network" }]));
});
