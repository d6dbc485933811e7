"""What letters in other languages say: the patterns of ``words/message_languages.toml``, each with
the words by which the reader knows it.
"""

from wattmetron.core.texts.word_lists import Words, word_lists

_WORDS = word_lists("message_languages")
SAID: tuple[tuple[str, str], ...] = _WORDS["said"]
BETWEEN_NUMBERS: str = _WORDS["between_numbers"]
OF: Words = _WORDS["of"]
