"""How publishers write in other languages and manners: the words of
``words/requirement_languages.toml``, each with the word by which the reader knows it.
"""

from collections.abc import Mapping

from wattmetron.core.texts.requirements.vocabulary import Field
from wattmetron.core.texts.word_lists import Words, word_lists

_WORDS = word_lists("requirement_languages")
LANGUAGES: Words = _WORDS["languages"]
LABEL_WORDS: Mapping[Field, Words] = _WORDS["label_words"]
LABEL_TO: Mapping[Field, str] = _WORDS["label_to"]
REQUIREMENTS: Words = _WORDS["requirements"]
MINIMUM_STEMS: Words = _WORDS["minimum_stems"]
RECOMMENDED_STEMS: Words = _WORDS["recommended_stems"]
MINIMUM_PHRASES: Words = _WORDS["minimum_phrases"]
RECOMMENDED_PHRASES: Words = _WORDS["recommended_phrases"]
BEFORE_AMOUNT: Words = _WORDS["before_amount"]
LOWEST_SAID: Words = _WORDS["lowest_said"]
BETTER_SAID: Words = _WORDS["better_said"]
FOR_ALL: Words = _WORDS["for_all"]
OR_WORDS: Mapping[str, Words] = _WORDS["or_words"]
AND_WORDS: Mapping[str, Words] = _WORDS["and_words"]
SIGNS: Mapping[str, Words] = _WORDS["signs"]
ENGLISH: frozenset[str] = frozenset(_WORDS["english"])
SETTINGS: Words = _WORDS["settings"]
PRESETS: Mapping[str, Words] = _WORDS["presets"]
OWN_STEMS: Mapping[str, Words] = _WORDS["own_stems"]
OWN: Mapping[str, Words] = _WORDS["own"]
FREE_WORDS: Words = _WORDS["free_words"]
LIKE_WORDS: Words = _WORDS["like_words"]
FILLERS: Mapping[str, Words] = _WORDS["fillers"]
SOLID_STATE: Words = _WORDS["solid_state"]
UNITS: Mapping[str, str] = _WORDS["units"]
NUMBERS: Mapping[str, int] = _WORDS["numbers"]
COUNTED: Words = _WORDS["counted"]
