"""What letters in other languages say, as data: patterns, each with the words by which the reader
knows it.
"""

SAID: tuple[tuple[str, str], ...] = (
    (r"als (?:maximum|obergrenze)|höchstens|maximal|au (?:plus|maximum)|como mucho", "at most"),
    (r"como máximo|no máximo|al massimo|maksymalnie|najwyżej|hoogstens|maximaal", "at most"),
    (r"zwischen|entre|tra|między|tussen", "between"),
    (
        r"budget|ausgeben|dépenser|gastar|spendere|wydania|wydać|uitgeven|besteden|presupuesto"
        r"|orçamento|budżet|limite|kosten darf",
        "budget",
    ),
    (r"jusqu'à|hasta|até|fino a|bis zu|do kwoty", "up to"),
    (r"raytracing|trazado de rayos|traçado de raios|lancer de rayons", "ray tracing"),
    (r"śledzeni\w+ promieni", "ray tracing"),
    (
        r"habe ich (?:schon|bereits)|ist (?:schon|bereits) da|schon da|vorhanden|besitze ich"
        r"|(?:j'ai|ai|je garde) déjà|déjà|ya tengo|tengo ya|já tenho|tenho já|ho già|già"
        r"|już mam|mam już|(?:heb ik|ik heb|hebben we) al",
        "already have",
    ),
    (
        r"keine?[nrsm]?|ohne|nicht|sans|pas (?:de|d')|aucune?s?|sin|nada de|sem|nenhuma?|niente"
        r"|senza|nessun\w*|bez|żadn\w+|geen|zonder",
        "no",
    ),
    (
        r"gebraucht\w*|d'occasion|occasion|de segunda mano|segunda mano|usad[oa]s?|usat[oaie]"
        r"|używan\w+|tweedehands|gebruikte?",
        "used",
    ),
    (r"leise\w*|silencieu\w+|silencios\w+|silenzios\w+|cich\w+|stil|stille?", "quiet"),
    (
        r"beleuchtung|lichter|lumières?|éclairage|luces|luci|illuminazione|luzes|świecide\w+"
        r"|podświetleni\w+|lampjes|verlichting",
        "lights",
    ),
    (r"festplatten?|disques? durs?|discos? duros?|discos? rígidos?|dischi rigidi", "hard disk"),
    (r"dysk\w* tward\w+|harde schij\w+", "hard disk"),
    (r"gehäuse|boîtier|caja|caixa|cabinet|obudow\w+|behuizing|kast", "case"),
    (
        r"netzteil\w*|alimentation|fuente(?: de alimentación)?|fonte|l'alimentatore|alimentatore"
        r"|zasilacz\w*|voeding",
        "power supply",
    ),
    (
        r"bildschirm\w*|écrans?|pantallas?|ecrãs?|telas?|scherm\w*|schermo|ekran\w*|monitor\w*",
        "monitor",
    ),
    (r"tastatur|clavier|teclado|tastiera|klawiatur\w+|toetsenbord", "keyboard"),
    (r"maus|souris|ratón|rato|mysz\w*|muis", "mouse"),
    (
        r"grafikkarte|carte graphique|tarjeta gráfica|placa (?:gráfica|de vídeo)|scheda video"
        r"|kart\w+ graficzn\w+|videokaart",
        "graphics card",
    ),
    (r"prozessor|processeur|procesador|processador|processore|procesor\w*", "processor"),
    (r"hauptplatine|carte mère|placa base|placa-mãe|scheda madre|płyt\w+ główn\w+", "mainboard"),
    (r"moederbord", "mainboard"),
    (r"arbeitsspeicher|mémoire|memoria|memória|pamięci|pamięć|werkgeheugen|geheugen", "memory"),
    (r"speicher(?:platz)?|stockage|almacenamiento|armazenamento|archiviazione|opslag", "storage"),
    (r"dysku", "storage"),
    (r"schwarz\w*|noire?s?|negr[oa]s?|pret[oa]s?|ner[oaie]|czarn\w+|zwarte?", "black"),
    (r"wei(?:ß|ss)\w*|blanche?s?|blanc[oa]s?|branc[oa]s?|bianc[oahie]+|biał\w+|witte?", "white"),
    (r"klein\w*|petite?s?|pequeñ[oa]s?|pequen[oa]s?|piccol[oaie]|mał[aeyi]\w*", "small"),
    (r"teile|pièces|piezas|peças|pezzi|części|onderdelen", "parts"),
    (r"brauche|besoin|necesito|preciso|serve|potrzebuj\w+|nodig", "need"),
    (r"w-?lan|wi-?fi", "wifi"),
)
BETWEEN_NUMBERS = r"und|et|y|e|i|en|bis|à|a|do|tot"
"""What joins the ends of a range."""
OF = ("de", "di", "van", "d'")
"""What stands between an amount and what it is of."""
