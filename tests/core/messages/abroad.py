"""Letters in seven languages, two in each, written before the reader knew any of them; the first
of each is for tuning.
"""

from tests.core.messages import Letter

TUNED = (
    Letter(
        "German",
        "Hallo, mein Budget liegt bei 1.200 Euro, höchstens 1.400. Ich spiele Gullwing Circuit und"
        " Hollow Meridian auf einem 1440p-Monitor mit 165 Hz. Der Rechner soll leise sein."
        " Gehäuse und"
        " SSD habe ich schon. Keine gebrauchten Teile bitte, WLAN brauche ich.",
        {
            "budget": (120_000, 140_000),
            "currency": "EUR",
            "games": ("gullwing-circuit", "hollow-meridian"),
            "size": (2560, 1440),
            "refresh_hz": 165.0,
            "quiet": True,
            "own_kinds": ("case", "storage"),
            "allow_used": False,
            "wireless": True,
        },
    ),
    Letter(
        "French",
        "Bonjour, je voudrais un PC pour 950 euros maximum. Je joue à Kiteball Arena et Causeway"
        " Clash"
        " en 1080p à 240 Hz. Il doit être silencieux, sans pièces d'occasion, et j'ai besoin du"
        " wifi."
        " 32 Go de mémoire, 2 To de stockage.",
        {
            "budget": (0, 95_000),
            "currency": "EUR",
            "games": ("kiteball-arena", "causeway-clash"),
            "size": (1920, 1080),
            "refresh_hz": 240.0,
            "quiet": True,
            "allow_used": False,
            "wireless": True,
            "memory_gb": 32.0,
            "storage_gb": 2000.0,
        },
    ),
    Letter(
        "Spanish",
        "Hola, tengo entre 1.600 y 1.900 euros. Juego a Vantage Null a 60 fps con trazado de"
        " rayos y a"
        " Tin Harbour, pantalla de 3440x1440 a 144 Hz. También hago streaming. 32 GB de memoria,"
        " sin"
        " discos duros.",
        {
            "budget": (160_000, 190_000),
            "currency": "EUR",
            "games": ("vantage-null", "tin-harbour"),
            "fps": {"vantage-null": 60.0},
            "ray_tracing": ("vantage-null",),
            "size": (3440, 1440),
            "refresh_hz": 144.0,
            "work": ("streaming",),
            "memory_gb": 32.0,
            "no_disks": True,
        },
    ),
    Letter(
        "Portuguese",
        "Olá! O meu orçamento é de 1000 euros. Jogo Brinewalkers e Lanternfolk em 1080p a 75 Hz."
        " Pode"
        " ter peças usadas. Quero uma caixa pequena e branca. Já tenho teclado e rato.",
        {
            "budget": (0, 100_000),
            "currency": "EUR",
            "games": ("brinewalkers", "lanternfolk"),
            "size": (1920, 1080),
            "refresh_hz": 75.0,
            "allow_used": True,
            "small": True,
            "colour": "white",
            "own_kinds": ("input",),
        },
    ),
    Letter(
        "Italian",
        "Ciao, ho un budget di 1500 euro al massimo. Gioco a Deepwater Pilot e Thousand Towers in"
        " 4k a"
        " 60 Hz. Niente luci, case nero. Ho già monitor, tastiera e mouse.",
        {
            "budget": (0, 150_000),
            "currency": "EUR",
            "games": ("deepwater-pilot", "thousand-towers"),
            "size": (3840, 2160),
            "refresh_hz": 60.0,
            "no_lights": True,
            "colour": "black",
            "own_kinds": ("display", "input"),
        },
    ),
    Letter(
        "Polish",
        "Dzień dobry, mam do wydania 1300 euro. Gram w Gullwing Circuit i Ashfall Wardens na"
        " monitorze"
        " 1440p 144 Hz. Komputer ma być cichy, bez używanych części. 16 GB pamięci i 1 TB dysku.",
        {
            "budget": (0, 130_000),
            "currency": "EUR",
            "games": ("gullwing-circuit", "ashfall-wardens"),
            "size": (2560, 1440),
            "refresh_hz": 144.0,
            "quiet": True,
            "allow_used": False,
            "memory_gb": 16.0,
            "storage_gb": 1000.0,
        },
    ),
    Letter(
        "Dutch",
        "Hoi, mijn budget is 1100 tot 1250 euro. Ik speel Tin Harbour en Vantage Null op een 1440p"
        " scherm van 144 Hz. Het moet stil zijn, geen lampjes, en ik heb wifi nodig. De behuizing"
        " en"
        " voeding heb ik al.",
        {
            "budget": (110_000, 125_000),
            "currency": "EUR",
            "games": ("tin-harbour", "vantage-null"),
            "size": (2560, 1440),
            "refresh_hz": 144.0,
            "quiet": True,
            "no_lights": True,
            "wireless": True,
            "own_kinds": ("case", "supply"),
        },
    ),
)

UNTOUCHED = (
    Letter(
        "German",
        "Moin! Ich möchte zwischen 900 und 1.000 Euro ausgeben. Gespielt wird Deepwater Pilot mit"
        " 60"
        " fps in 4k, ohne Raytracing. Gebrauchtes ist in Ordnung. Netzteil vorhanden. Bitte"
        " schwarz und"
        " ohne Beleuchtung, 2 TB Speicher.",
        {
            "budget": (90_000, 100_000),
            "currency": "EUR",
            "games": ("deepwater-pilot",),
            "fps": {"deepwater-pilot": 60.0},
            "size": (3840, 2160),
            "allow_used": True,
            "own_kinds": ("supply",),
            "colour": "black",
            "no_lights": True,
            "storage_gb": 2000.0,
        },
    ),
    Letter(
        "French",
        "Salut, budget de 1 400 euros. Surtout Thousand Towers et un peu de Hollow Meridian, écran"
        " 2560x1440 à 144 Hz. J'ai déjà le boîtier et l'alimentation. Pas de disque dur, pas de"
        " lumières.",
        {
            "budget": (0, 140_000),
            "currency": "EUR",
            "games": ("thousand-towers", "hollow-meridian"),
            "size": (2560, 1440),
            "refresh_hz": 144.0,
            "own_kinds": ("case", "supply"),
            "no_disks": True,
            "no_lights": True,
        },
    ),
    Letter(
        "Spanish",
        "Buenas, mi presupuesto es de 800 euros como mucho. Juego a Lanternfolk y Kiteball Arena en"
        " 1080p. Me da igual si hay piezas de segunda mano. Ya tengo monitor y teclado. Que sea"
        " pequeño.",
        {
            "budget": (0, 80_000),
            "currency": "EUR",
            "games": ("lanternfolk", "kiteball-arena"),
            "size": (1920, 1080),
            "allow_used": True,
            "own_kinds": ("display", "input"),
            "small": True,
        },
    ),
    Letter(
        "Portuguese",
        "Boa tarde, posso gastar até 1300 euros. Jogo Causeway Clash a 144 fps num ecrã 1440p."
        " Tem de"
        " ser silencioso e ter wifi. 32 GB de RAM. Sem peças usadas.",
        {
            "budget": (0, 130_000),
            "currency": "EUR",
            "games": ("causeway-clash",),
            "fps": {"causeway-clash": 144.0},
            "size": (2560, 1440),
            "quiet": True,
            "wireless": True,
            "memory_gb": 32.0,
            "allow_used": False,
        },
    ),
    Letter(
        "Italian",
        "Buongiorno, vorrei spendere tra 1200 e 1350 euro. Gioco a Ashfall Wardens a 60 fps,"
        " schermo"
        " 2560x1440 a 144 Hz. Deve essere silenzioso. Niente pezzi usati. Ho già l'alimentatore.",
        {
            "budget": (120_000, 135_000),
            "currency": "EUR",
            "games": ("ashfall-wardens",),
            "fps": {"ashfall-wardens": 60.0},
            "size": (2560, 1440),
            "refresh_hz": 144.0,
            "quiet": True,
            "allow_used": False,
            "own_kinds": ("supply",),
        },
    ),
    Letter(
        "Polish",
        "Cześć, budżet to 900 euro. Gram głównie w Brinewalkers, ekran 1080p 75 Hz. Obudowę i"
        " zasilacz"
        " już mam. Bez świecidełek, obudowa czarna. Potrzebuję wifi.",
        {
            "budget": (0, 90_000),
            "currency": "EUR",
            "games": ("brinewalkers",),
            "size": (1920, 1080),
            "refresh_hz": 75.0,
            "own_kinds": ("case", "supply"),
            "no_lights": True,
            "colour": "black",
            "wireless": True,
        },
    ),
    Letter(
        "Dutch",
        "Goedendag, ik wil hoogstens 1500 euro uitgeven. Spellen: Gullwing Circuit op 120 fps,"
        " Hollow"
        " Meridian. Scherm 3440x1440, 120 Hz. Tweedehands onderdelen mag. Geen harde schijven, 2 TB"
        " opslag, 32 GB geheugen.",
        {
            "budget": (0, 150_000),
            "currency": "EUR",
            "games": ("gullwing-circuit", "hollow-meridian"),
            "fps": {"gullwing-circuit": 120.0},
            "size": (3440, 1440),
            "refresh_hz": 120.0,
            "allow_used": True,
            "no_disks": True,
            "storage_gb": 2000.0,
            "memory_gb": 32.0,
        },
    ),
)
