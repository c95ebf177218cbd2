"""The scripts' own rules, tried in the browser that runs them: answers that overtake each other, texts, ribbons' days, what is kept."""

from typing import Any

from tests.browser.live import LiveTest

NEWEST = """
const [order, fails] = given;
const newest = it.newest(), answer = [], shown = [], failed = [];
const asked = [0, 1, 2].map((n) =>
  newest(() => new Promise((resolve, reject) => (answer[n] = fails.includes(n) ? () => reject(new Error(n)) : () => resolve(n))), (told) => shown.push(told))
    .catch((error) => failed.push(Number(error.message))));
for (const n of order) { answer[n](); await asked[n]; }
return [shown, failed];
"""
DAYS = {
    "first": "2026-03-01", "offset": 2, "axis": 9, "unit": "degree-days C", "kinds": "mmfpi", "words": {"egg": "eggs", "larva": "larvae"},
    "stages": {"egg": [100, 70, 40, 0, 0], "larva": [0, 30, 60, 0, 0]}, "heat": [[5, 6, 7, 8, 9], [5, 6, 8, 12, 20], [5, 6, 9, 16, 31]],
}  # fmt: skip


class Modules(LiveTest):
    allowed_noise = ("400 (BAD REQUEST)", "422 (UNPROCESSABLE")

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.sign_in("scout")

    def setUp(self) -> None:
        super().setUp()
        self.go("round")


class Asking(Modules):
    def newest(self, order: list[int], fails: list[int]) -> Any:
        return self.module("lib/ask.js", NEWEST, order, fails)

    def test_an_answer_is_shown_unless_a_newer_one_was(self) -> None:
        for order, shown in (([0, 1, 2], [0, 1, 2]), ([2, 1, 0], [2]), ([1, 0, 2], [1, 2]), ([0, 2, 1], [0, 2])):
            self.assertEqual(self.newest(order, []), [shown, []], order)

    def test_a_question_that_failed_is_told_only_where_it_was_the_newest(self) -> None:
        self.assertEqual(self.newest([0, 1, 2], [0]), [[1, 2], []])
        self.assertEqual(self.newest([0, 1, 2], [2]), [[0, 1], [2]])
        self.assertEqual(self.newest([2, 1, 0], [1]), [[2], []])

    def test_what_is_posted_is_answered_and_what_is_refused_is_no_answer(self) -> None:
        post = "return it.post(...given).then((told) => told, (error) => error.message)"
        count = {"seq": 3, "counts": [1, 2, 3] * 4, "enemies": [], "measure": "mean", "unit": "leaf", "threshold": 9}
        count |= {"agent": "two-spotted-spider-mite"}
        answer = self.module("lib/ask.js", post, f"{self.farm}/count/read", count)
        self.assertEqual((answer["seq"], round(answer["estimate"], 6), answer["title"]), (3, 2, "Enough: too few to matter"))
        self.assertEqual(self.module("lib/ask.js", post, f"{self.farm}/count/read", {"counts": "many"}), "the server answered 422")


class Saying(Modules):
    def test_fields_are_filled_and_what_is_not_given_is_left(self) -> None:
        fill = "return it.fill(...given)"
        self.assertEqual(self.module("lib/say.js", fill, "{low} to {high}, {unit}", {"low": 0, "high": "5"}), "0 to 5, {unit}")

    def test_one_and_many(self) -> None:
        for count, words in ((1, "1 record waits to be sent"), (0, "0 records wait to be sent"), (2, "2 records wait to be sent")):
            self.assertEqual(self.module("lib/say.js", "return it.say('waits', {count: given[0]})", count), words)

    def test_a_text_that_is_not_there_is_a_fault(self) -> None:
        answer = self.module("lib/say.js", "try { return it.say('no such text') } catch (error) { return error.message }")
        self.assertEqual(answer, "no text is called no such text")


class Ribbons(Modules):
    def words(self, index: int, **more: Any) -> Any:
        return self.module("lib/ribbon.js", "return it.words(...given)", {**DAYS, **more}, index)

    def test_a_day_is_told_by_its_stages_and_its_heat(self) -> None:
        self.assertEqual(self.words(3), ["2 March", "70 % eggs, 30 % larvae. 6 degree-days C, this day measured."])
        self.assertEqual(self.words(4), ["3 March", "60 % larvae, 40 % eggs. 8 degree-days C, this day forecast."])

    def test_heat_that_is_not_sure_has_its_range(self) -> None:
        self.assertEqual(self.words(5), ["4 March", "nobody about. 12 (8 to 16) degree-days C, this day drawn from past years."])

    def test_days_before_and_after_are_said_to_be(self) -> None:
        self.assertEqual(self.words(0), ["27 February", "Before the biofix."])
        self.assertEqual(self.words(9), ["8 March", "After what is reckoned."])
        self.assertEqual(self.words(3, first=""), ["", "Nothing is told of this day."])


class Keeping(Modules):
    def test_records_come_back_in_the_order_in_which_they_were_kept(self) -> None:
        body = """
        const ids = ["c", "a", "b"].map((end) => "test-" + end);
        const places = [];
        for (const id of ids) places.push(await it.put({ command_id: id, account: "nobody" }));
        const kept = (await it.all()).filter((record) => record.account === "nobody").map((record) => record.command_id);
        const twice = await it.put({ command_id: "test-a", account: "nobody" }).catch((error) => error.name);
        for (const place of places) await it.drop(place);
        return [kept, twice, (await it.all()).filter((record) => record.account === "nobody").length];
        """
        self.assertEqual(self.module("lib/store.js", body), [["test-c", "test-a", "test-b"], "ConstraintError", 0])

    def test_drafts_are_dropped_by_whose_they_are(self) -> None:
        body = """
        for (const owner of ["ann", "anna", "bo"]) await it.keepDraft(owner + "/look/1", { of: owner });
        await it.dropDraftsOf("ann");
        const left = await Promise.all(["ann", "anna", "bo"].map((owner) => it.readDraft(owner + "/look/1")));
        for (const owner of ["anna", "bo"]) await it.dropDraft(owner + "/look/1");
        return left.map((draft) => (draft ? draft.of : ""));
        """
        self.assertEqual(self.module("lib/store.js", body), ["", "anna", "bo"])
