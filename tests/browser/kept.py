"""A page that tests share: a new one costs half a second of a processor, one that is wiped a tenth of it."""

from collections.abc import Iterator
from contextlib import contextmanager
from functools import wraps
from unittest.mock import patch

from playwright.sync_api import Browser, BrowserContext, Page
from playwright.sync_api._generated import Clock

LASTING = [
    (BrowserContext, "add_init_script"), (BrowserContext, "new_cdp_session"), (Page, "add_init_script"),
    (Page, "emulate_media"), (Clock, "install"), (Clock, "set_fixed_time"),
]  # fmt: skip
"""What a page cannot be rid of again: a test that does it is the last one on that page."""

AWAY = "/icon.svg"
"""Something of the same origin, without the app: what the origin keeps can be thrown away there."""


class KeptPage:
    def __init__(self, browser: Browser, **args):
        self.browser, self.args = browser, args
        self.page: Page | None = None
        self.lasting = False

    @contextmanager
    def watched(self) -> Iterator[None]:
        """Sees whether a test does what lasts."""

        def seen(act):
            @wraps(act)
            def and_told(*given, **named):
                self.lasting = True
                return act(*given, **named)

            return and_told

        patches = [patch.object(of, name, seen(getattr(of, name))) for of, name in LASTING]
        for each in patches:
            each.start()
        yield
        for each in patches:
            each.stop()

    def opened(self) -> Page:
        if self.page is None:
            self.page = self.browser.new_context(**self.args).new_page()
            self.tools = self.page.context.new_cdp_session(self.page)
            self.lasting = False
        return self.page

    def wipe(self, address: str) -> None:
        """Nothing of the test that ended is left: no page, cookie, row, answer of its own, size or way back."""
        page = self.page
        assert page is not None
        context = page.context
        if self.lasting or page.is_closed():
            context.close()
            self.page = None
            return
        for other in context.pages:
            if other is not page:
                other.close()
        page.unroute_all(behavior="ignoreErrors")
        context.unroute_all(behavior="ignoreErrors")
        context.set_offline(False)
        if page.url != f"{address}{AWAY}":
            page.goto(f"{address}{AWAY}")
        page.evaluate("sessionStorage.clear()")
        self.tools.send("Storage.clearDataForOrigin", {"origin": address, "storageTypes": "all"})
        self.tools.send("Page.resetNavigationHistory")
        context.clear_cookies()
        context.clear_permissions()
        page.set_viewport_size(self.args["viewport"])
