import { forgiven } from '../../kinds/forgiving';

/**
 * What in a language turns an answer into another one, though most of its words are the same: common practice, no source.
 * A language without a list of its own is read by what all of them have in common: its words, numbers and letters.
 */
export interface LanguageWords {
  /** Words that say little by themselves. */
  function: string;
  /** Words that deny. */
  negations: string;
  /** Poles: the words before and after each slash say the opposite of each other. */
  poles: string;
  /** What stands before one of these and what stands after it cannot change places. */
  connectives: string;
  /** From nought on; `one` is left out where it is an article too. */
  numbers: string;
  /** Endings that leave a word the same word. */
  endings: string;
}

const spread = (text: string) => text.split(/\s+/).filter(Boolean);

const en: LanguageWords = {
  function: `a an the and or of to in on at by for from with as it its it's is are was were be been being am this that
    these those there they them their he she his her we our you your i my me do does did so such then which who whom
    what when where while will would can could may might shall should has have had having get gets got just very also
    into onto about if because since than before after therefore thus hence each every us s t re ve ll d let lets but during around only then way one`,
  negations: `not no never none nothing nobody neither nor without cannot n't nowhere hardly`,
  poles: `more greater larger bigger higher increase increases increased increasing rise rises rising rose stronger
      faster / less fewer smaller lower decrease decreases decreased decreasing fall falls falling fell weaker slower
    | up upward upwards above over / down downward downwards below under beneath
    | left / right | port / starboard | north northern northward / south southern southward
    | east eastern eastward / west western westward | inside within / outside
    | clockwise / anticlockwise counterclockwise | ahead forward forwards / astern backward backwards behind
    | toward towards closer nearer / away further farther
    | always / sometimes / never | all / some | first / last | hot hotter warm warmer / cold colder cool cooler
    | positive / negative | maximum most / minimum least | attract attracts / repel repels
    | heavy heavier / light lighter | long longer / short shorter | deep deeper / shallow shallower
    | early earlier / late later | high / low | open opens opened / close closes closed shut`,
  connectives: `because since as so than before after until if when therefore causes cause caused makes through by per over divided minus`,
  numbers: `zero - two three four five six seven eight nine ten eleven twelve`,
  endings: `s es ed d ing er r ly e ies y ied al ic ical ation ion ions ting ting ned ning`,
};

const de: LanguageWords = {
  function: `der die das den dem des ein eine einen einem einer eines und oder von vom zu zum zur in im ins an am auf bei mit
    als es er sie ist sind war waren wird werden wurde wurden sein hat haben hatte dass daß weil denn da dann so sich
    dieser diese dieses man ihr ihre ihren seine seinen wir uns ich mir mich auch noch sehr schon durch für um wenn wo wie dabei wegen
    dadurch deshalb daher also einfach aber zu nach nur`,
  negations: `nicht kein keine keinen keinem keiner keines nie niemals nichts niemand ohne weder`,
  poles: `mehr größer grösser groesser höher hoeher stärker staerker steigt steigen stieg zunimmt zunehmen
      schneller / weniger kleiner niedriger schwächer schwaecher sinkt sinken sank abnimmt abnehmen fällt langsamer
    | oben hinauf aufwärts über / unten hinab hinunter abwärts unter | links / rechts | backbord / steuerbord
    | nord norden nördlich / süd süden südlich | ost osten östlich / west westen westlich | innen drinnen / außen draußen aussen
    | vorwärts voraus / rückwärts achteraus | hin näher / weg weiter ferner | immer / manchmal / nie | alle / einige
    | erste erster zuerst / letzte letzter zuletzt | heiß heiss warm wärmer / kalt kälter | positiv / negativ
    | schwer schwerer / leicht leichter | lang länger / kurz kürzer | früh früher / spät später | hoch / tief niedrig
    | offen öffnet / schließt geschlossen | aufgenommen aufnimmt / abgegeben abgibt`,
  connectives: `weil denn da als bevor nachdem bis wenn deshalb daher durch geteilt minus`,
  numbers: `null - zwei drei vier fünf sechs sieben acht neun zehn elf zwölf`,
  endings: `e en er es em n s t te ten st et ung ungen lich nd nde nden m r`,
};

const fr: LanguageWords = {
  function: `le la les l un une des du de d au aux et ou à en dans sur par pour avec que qu qui ce c cet cette ces
    il elle ils elles on nous vous je j tu se s sa son ses leur leurs y est sont était étaient être été a ont avait avoir fait
    car parce donc alors comme si quand très aussi lui eux lorsque puisque ainsi mais donc environ seulement`,
  negations: `ne n pas jamais rien aucun aucune sans ni personne non nul nulle`,
  poles: `plus davantage augmente augmentent augmenter monte montent supérieur supérieure grossit accélère
      / moins diminue diminuent diminuer baisse baissent descend descendent inférieur inférieure rétrécit ralentit
    | haut dessus / bas dessous | gauche / droite | bâbord / tribord | nord / sud | dedans intérieur / dehors extérieur
    | avant devant / arrière derrière | approche rapproche / éloigne | toujours / parfois / jamais | tous toutes / quelques
    | premier première / dernier dernière | chaud chaude / froid froide | positif positive / négatif négative
    | lourd lourde lourds lourdes / léger légère légers légères | long longue / court courte | tôt / tard | ouvre ouvert / ferme fermé
    | attire / repousse`,
  connectives: `car parce que avant après autour donc quand si comme puisque divisé moins par`,
  numbers: `zéro - deux trois quatre cinq six sept huit neuf dix onze douze`,
  endings: `s e es ent er é ée és ées ant ait aient ement ment tion tions x r i it ir`,
};

const es: LanguageWords = {
  function: `el la los las un una unos unas de del al a y o e u en con por para que quien cual su sus lo le les se es son era
    eran ser está están estar fue ha han había como si porque pues ya muy también este esta esto ese esa eso hay cuando donde
    nos pero yo tú él ella ellos ellas mi me te entonces`,
  negations: `no nunca jamás nada nadie ningún ninguna ninguno sin tampoco ni`,
  poles: `más mayor mayores aumenta aumentan aumentar sube suben crece crecen mucho mucha muchos muchas
      / menos menor menores disminuye disminuyen disminuir baja bajan decrece poco poca pocos pocas
    | arriba encima / abajo debajo | izquierda / derecha | babor / estribor | norte / sur | dentro adentro / fuera afuera
    | adelante delante / atrás detrás | acerca acercan / aleja alejan | siempre / veces / nunca | todos todas / algunos algunas
    | primero primera / último última | caliente calor / frío fría | positivo positiva / negativo negativa
    | pesado pesada / ligero ligera | largo larga / corto corta | temprano / tarde | abre abierto / cierra cerrado | atrae / repele`,
  connectives: `porque pues que antes después si cuando como entonces dividido menos por`,
  numbers: `cero - dos tres cuatro cinco seis siete ocho nueve diez once doce`,
  endings: `s es o a os as e en an ar er ir ando iendo ado ido ada ida ados idos ó ción ciones r`,
};

const it: LanguageWords = {
  function: `il lo la i gli le l un uno una di del dello della dei degli delle a al allo alla in nel nella con per da dal dalla su sul
    che chi e ed o è sono era erano essere ha hanno si ci suo sua loro questo questa quello quella perché come se quando molto anche`,
  negations: `non no mai niente nulla nessuno nessuna nessun senza né`,
  poles: `più maggiore aumenta aumentano sale salgono / meno minore diminuisce diminuiscono scende scendono
    | sopra alto / sotto basso | sinistra / destra | nord / sud | est / ovest | dentro / fuori | avanti / indietro | sempre / mai
    | caldo calda / freddo fredda | positivo / negativo | pesante / leggero`,
  connectives: `perché che prima dopo se quando come quindi diviso meno per`,
  numbers: `zero - due tre quattro cinque sei sette otto nove dieci undici dodici`,
  endings: `o a i e are ere ire ando endo ato ito uto ata ati ate zione zioni no mente r`,
};

const nl: LanguageWords = {
  function: `de het een en of van in op aan bij met als het hij zij ze is zijn was waren wordt worden werd heeft hebben dat die deze dit
    omdat want dan zo zich men er ook nog heel door voor om als waar hoe te naar`,
  negations: `niet geen nooit niets niemand zonder noch nergens`,
  poles: `meer groter hoger sterker stijgt toeneemt sneller / minder kleiner lager zwakker daalt afneemt langzamer
    | boven omhoog / onder omlaag beneden | links / rechts | bakboord / stuurboord | noord noorden / zuid zuiden | oost oosten / west westen
    | binnen / buiten | vooruit / achteruit | altijd / soms / nooit | warm heet / koud | positief / negatief | zwaar / licht`,
  connectives: `omdat want dan voor voordat na nadat als wanneer dus gedeeld min door`,
  numbers: `nul - twee drie vier vijf zes zeven acht negen tien elf twaalf`,
  endings: `e en s t de den te ten er d n r`,
};

const pt: LanguageWords = {
  function: `o a os as um uma de do da dos das em na nos nas com por para pelo pela que quem e ou é são era eram ser está estão
    foi há como se porque pois já muito também este esta isso esse essa quando onde seu sua seus suas`,
  negations: `não nunca jamais nada ninguém nenhum nenhuma sem nem`,
  poles: `mais maior aumenta aumentam sobe sobem / menos menor diminui diminuem desce descem | cima acima / baixo abaixo
    | esquerda / direita | bombordo / estibordo | norte / sul | leste / oeste | dentro / fora | frente / trás | sempre / nunca
    | quente / frio fria | positivo / negativo | pesado / leve`,
  connectives: `porque pois que antes depois se quando como então dividido menos por`,
  numbers: `zero - dois três quatro cinco seis sete oito nove dez onze doze`,
  endings: `s es o a os as e em am ar er ir ando endo ado ido ada ida ção ções r`,
};

const languages: Record<string, LanguageWords> = { en, de, fr, es, it, nl, pt };

/** The languages that have lists, by their codes. */
export const languageCodes = Object.keys(languages);

/** A text without case and accents, so that what is typed in a hurry meets what was meant. */
export const plain = (text: string) => forgiven(text, { case: true, accents: true, spaces: false });

/** Made ready to look up, each word as `plain` leaves it. */
export interface LanguageLists {
  function: ReadonlySet<string>;
  negations: ReadonlySet<string>;
  /** By word, the pole it names. */
  poles: ReadonlyMap<string, string>;
  connectives: ReadonlySet<string>;
  numbers: ReadonlyMap<string, string>;
  endings: ReadonlySet<string>;
}

const made = new Map<string, LanguageLists>();

/** The lists of a language, by its code in BCP 47: "en", "de-AT". */
export function listsOf(code: string): LanguageLists {
  const name = code.toLowerCase().split('-')[0] ?? '';
  const known = made.get(name);
  if (known) return known;
  const words = languages[name];
  const set = (text = '') => new Set(spread(text).map(plain));
  const poles = (words?.poles ?? '')
    .split('|')
    .flatMap((axis, at) =>
      axis
        .split('/')
        .flatMap((side, pole) =>
          spread(side).map((word): [string, string] => [plain(word), `${at}${'abc'[pole]}`]),
        ),
    );
  const numbers = spread(words?.numbers ?? '').map((word, value): [string, string] => [
    plain(word),
    String(value),
  ]);
  const lists: LanguageLists = {
    function: set(words?.function),
    negations: set(words?.negations),
    poles: new Map(poles),
    connectives: set(words?.connectives),
    numbers: new Map(numbers.filter(([word]) => word !== '-')),
    endings: new Set(['', ...set(words?.endings)]),
  };
  made.set(name, lists);
  return lists;
}
