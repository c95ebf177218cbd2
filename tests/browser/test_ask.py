"""The scripts' own rules, tried in the browser that runs them: answers that overtake each other, and a server that would not answer."""

from typing import Any

from tests.browser.live import LiveTest

NEWEST = """
const done = arguments[arguments.length - 1], order = arguments[0], fails = arguments[1];
const newest = Ask.newest(), answer = [], shown = [], failed = [];
const asked = [0, 1, 2].map((n) =>
  newest(() => new Promise((resolve, reject) => (answer[n] = fails.includes(n) ? () => reject(new Error(n)) : () => resolve(n))), (told) => shown.push(told))
    .catch((error) => failed.push(Number(error.message))));
(async () => { for (const n of order) { answer[n](); await asked[n]; } done([shown, failed]); })();
"""


class Asking(LiveTest):
    allowed_noise = ("400 (BAD REQUEST)", "422 (UNPROCESSABLE")

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.sign_in("scout")

    def newest(self, order: list[int], fails: list[int]) -> Any:
        return self.chrome.execute_async_script(NEWEST, order, fails)

    def test_an_answer_is_shown_unless_a_newer_one_was(self) -> None:
        self.go("round")
        for order, shown in (([0, 1, 2], [0, 1, 2]), ([2, 1, 0], [2]), ([1, 0, 2], [1, 2]), ([0, 2, 1], [0, 2])):
            self.assertEqual(self.newest(order, []), [shown, []], order)

    def test_a_question_that_failed_is_told_only_where_it_was_the_newest(self) -> None:
        self.go("round")
        self.assertEqual(self.newest([0, 1, 2], [0]), [[1, 2], []])
        self.assertEqual(self.newest([0, 1, 2], [2]), [[0, 1], [2]])
        self.assertEqual(self.newest([2, 1, 0], [1]), [[2], []])

    def test_what_is_posted_is_answered_and_what_is_refused_is_no_answer(self) -> None:
        self.go("round")
        post = "const done = arguments[2]; Ask.post(arguments[0], arguments[1]).then((told) => done(told), (error) => done(error.message))"
        told = self.chrome.execute_async_script(
            post, f"{self.farm}/count/read", {"seq": 3, "counts": [1, 2, 3], "enemies": [], "measure": "mean"}
        )
        self.assertEqual((told["seq"], round(told["estimate"], 6)), (3, 2))
        told = self.chrome.execute_async_script(post, f"{self.farm}/count/read", {"counts": "many"})
        self.assertEqual(told, "the server answered 422")
