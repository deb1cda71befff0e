/**
 * Quizzes as people write them, each in another habit, and what is to be understood. Written for this project; common practice, no source.
 *
 * A question is said as its kind, its text, options with a star before those that are right or `=` and what is accepted, and
 * its points where they are not 1.
 */
export interface QuizText {
  habit: string;
  text: string;
  questions: string[];
  title?: string;
}

export const quizTexts: QuizText[] = [
  {
    habit: 'numbers with points, letters with brackets, a star before the right one',
    text: `1. Which light shows on the port side?\na) green\n*b) red\nc) white\n\n2. Which buoy is yellow?\na) special mark\nb) safe water\n*a) `.replace('\n*a) ', ''),
    questions: ['one: Which light shows on the port side? | green | *red | white', 'one: Which buoy is yellow? | special mark | safe water'],
  },
  {
    habit: 'a star behind the right one',
    text: `1) The ebb runs\nA. in\nB. out *\nC. nowhere\n2) The flood runs\nA. in*\nB. out`,
    questions: ['one: The ebb runs | in | *out | nowhere', 'one: The flood runs | *in | out'],
  },
  {
    habit: 'bold as in marked text',
    text: `1. What is a knot?\na. **one nautical mile in an hour**\nb. one kilometre in an hour\nc. a rope`,
    questions: ['one: What is a knot? | *one nautical mile in an hour | one kilometre in an hour | a rope'],
  },
  {
    habit: 'underlined as in marked text',
    text: `1. Low water is\nA) __the lowest level of a tide__\nB) the chart datum`,
    questions: ['one: Low water is | *the lowest level of a tide | the chart datum'],
  },
  {
    habit: 'answers behind Answer:',
    text: `Question 1: Who gives way?\nA) the vessel on port tack\nB) the vessel on starboard tack\nAnswer: A\n\nQuestion 2: Who stands on?\nA) the overtaking vessel\nB) the vessel being overtaken\nAnswer: B`,
    questions: [
      'one: Who gives way? | *the vessel on port tack | the vessel on starboard tack',
      'one: Who stands on? | the overtaking vessel | *the vessel being overtaken',
    ],
  },
  {
    habit: 'a key at the end in one line',
    text: `1. East is\na) left of north on a chart\nb) right of north on a chart\n\n2. South is\na) down\nb) up\n\n3. West is\na) right\nb) left\n\nAnswers: 1 b, 2 a, 3 b`,
    questions: [
      'one: East is | left of north on a chart | *right of north on a chart',
      'one: South is | *down | up',
      'one: West is | right | *left',
    ],
  },
  {
    habit: 'a key at the end, a line each',
    text: `Tides\n\n1. HW stands for\nA. high water\nB. half way\n\n2. LW stands for\nA. long wave\nB. low water\n\nAnswer key\n1. A\n2. B`,
    title: 'Tides',
    questions: ['one: HW stands for | *high water | half way', 'one: LW stands for | long wave | *low water'],
  },
  {
    habit: 'a key with words',
    text: `1. Name the stream that runs out.\n2. How many points has a compass card?\n3. Name the line of equal depth.\n\nKey:\n1. ebb\n2. 32\n3. depth contour`,
    questions: [
      'short: Name the stream that runs out. = ebb',
      'number: How many points has a compass card? = 32',
      'short: Name the line of equal depth. = depth contour',
    ],
  },
  {
    habit: 'points in brackets',
    text: `1. What does a cone pointing up mean? (2 points)\na) north mark\n*b) top of a north mark's pair\n\n2. Explain set and drift. [4 pts]`,
    questions: [
      "one: What does a cone pointing up mean? | north mark | *top of a north mark's pair (2)",
      'open: Explain set and drift. = (4)',
    ],
  },
  {
    habit: 'points before the question and behind a dash',
    text: `1. (3 marks) Describe a fix by three bearings.\n2. What is a transit? – 2 points\nAnswer: two marks in line`,
    questions: ['open: Describe a fix by three bearings. = (3)', 'short: What is a transit? = two marks in line (2)'],
  },
  {
    habit: 'true or false in words before',
    text: `1. True or false: The flood runs out to sea.\nAnswer: False\n2. True/False: Red is left when coming in.\nAnswer: true`,
    questions: ['tf: The flood runs out to sea. = false', 'tf: Red is left when coming in. = true'],
  },
  {
    habit: 'true or false behind, with a key',
    text: `1. A cable is a tenth of a nautical mile. (T/F)\n2. A fathom is six feet. (True/False)\n\nAnswers\n1. T\n2. T`,
    questions: ['tf: A cable is a tenth of a nautical mile. = true', 'tf: A fathom is six feet. = true'],
  },
  {
    habit: 'true and false as options',
    text: `1. Charts show depths below chart datum.\n*a) True\nb) False\n\n2. Drying heights are below chart datum.\na) True\nb) False *`,
    questions: ['tf: Charts show depths below chart datum. = true', 'tf: Drying heights are below chart datum. = false'],
  },
  {
    habit: 'true or false decided in brackets',
    text: `1. Magnetic north moves. (T)\n2. True north moves every year. (F)`,
    questions: ['tf: Magnetic north moves. = true', 'tf: True north moves every year. = false'],
  },
  {
    habit: 'a part of true or false',
    text: `Part A: True or false (1 point each)\n1. Wind veers when it turns clockwise.\n2. Wind backs when it turns clockwise.\n\nPart B: Choose (2 points each)\n3. A gale is force\na) 4\n*b) 8\n\nAnswers: 1 T, 2 F`,
    questions: [
      'tf: Wind veers when it turns clockwise. = true',
      'tf: Wind backs when it turns clockwise. = false',
      'one: A gale is force | 4 | *8 (2)',
    ],
  },
  {
    habit: 'blanks as low lines with answers',
    text: `1. The ____ stream runs out, the ____ stream runs in.\nAnswer: ebb, flood\n2. A minute of latitude is one ________.\nAnswer: nautical mile / sea mile`,
    questions: [
      'gaps: The [1] stream runs out, the [2] stream runs in. = ebb; flood (2)',
      'gaps: A minute of latitude is one [1]. = nautical mile / sea mile',
    ],
  },
  {
    habit: 'a blank with options stays a choice',
    text: `1. The vessel on the ____ tack gives way.\na) port *\nb) starboard`,
    questions: ['one: The vessel on the ____ tack gives way. | *port | starboard'],
  },
  {
    habit: 'several right ones by stars',
    text: `1. Which are cardinal marks?\n*a) north\n*b) east\nc) port\n*d) west`,
    questions: ['several: Which are cardinal marks? | *north | *east | port | *west'],
  },
  {
    habit: 'several right ones by letters',
    text: `1. Which are lateral marks?\nA. port hand\nB. starboard hand\nC. safe water\nAnswer: A and B`,
    questions: ['several: Which are lateral marks? | *port hand | *starboard hand | safe water'],
  },
  {
    habit: 'check boxes',
    text: `1. Which stop a leak?\n[x] a plug\n[ ] a lamp\n[X] a mat\n\n2. Which give light?\n[ ] a plug\n[x] a lamp`,
    questions: ['several: Which stop a leak? | *a plug | a lamp | *a mat', 'one: Which give light? | a plug | *a lamp'],
  },
  {
    habit: 'dashes for options',
    text: `1. What is a lee shore?\n- a shore the wind blows onto *\n- a shore the wind blows off\n\n2. What is a bar?\n- a bank across an entrance (correct)\n- a buoy`,
    questions: [
      'one: What is a lee shore? | *a shore the wind blows onto | a shore the wind blows off',
      'one: What is a bar? | *a bank across an entrance | a buoy',
    ],
  },
  {
    habit: 'options in one line',
    text: `1. Which is deepest? a) 2 m b) 5 m c) 12 m\nAnswer: c\n2. Which dries?\na) 2₃ underlined  b) 2₃ plain\nAnswer: a`,
    questions: ['one: Which is deepest? | 2 m | 5 m | *12 m', 'one: Which dries? | *2₃ underlined | 2₃ plain'],
  },
  {
    habit: 'letters in brackets',
    text: `(1) A sound signal of one short blast says\n(a) I am turning to starboard\n(b) I am turning to port\n(2) Two short blasts say\n(a) I am turning to starboard\n(b) I am turning to port\n\nSolutions\n(1) a\n(2) b`,
    questions: [
      'one: A sound signal of one short blast says | *I am turning to starboard | I am turning to port',
      'one: Two short blasts say | I am turning to starboard | *I am turning to port',
    ],
  },
  {
    habit: 'without numbers, blocks with blank lines',
    text: `What colour is a special mark?\na) yellow *\nb) red\n\nWhat shape is its topmark?\na) a cross *\nb) a can`,
    questions: ['one: What colour is a special mark? | *yellow | red', 'one: What shape is its topmark? | *a cross | a can'],
  },
  {
    habit: 'without numbers, answers behind',
    text: `How long is a cable in metres?\nAnswer: 185.2\n\nWhat is the opposite of windward?\nAnswer: leeward`,
    questions: ['number: How long is a cable in metres? = 185.2', 'short: What is the opposite of windward? = leeward'],
  },
  {
    habit: 'Q: and A:',
    text: `Q: What turns the needle of a compass?\nA: iron nearby\n\nQ: What is the angle between true and magnetic north?\nA: variation`,
    questions: ['short: What turns the needle of a compass? = iron nearby', 'short: What is the angle between true and magnetic north? = variation'],
  },
  {
    habit: 'Q1 and ticks',
    text: `Q1. Which is a distress signal?\nA) a red flare ✓\nB) a green flare\nQ2. Which is no distress signal?\nA) an orange smoke\nB) a white flare ✔`,
    questions: ['one: Which is a distress signal? | *a red flare | a green flare', 'one: Which is no distress signal? | an orange smoke | *a white flare'],
  },
  {
    habit: 'numbers for options below worded questions',
    text: `Question 1\nWhere is the anchor?\n1) at the bow\n2) at the masthead\nAnswer: at the bow\n\nQuestion 2\nWhere is the rudder?\n1) at the bow\n2) at the stern\nAnswer: at the stern`,
    questions: ['one: Where is the anchor? | *at the bow | at the masthead', 'one: Where is the rudder? | at the bow | *at the stern'],
  },
  {
    habit: 'the right option in words',
    text: `1. Which tide has the greatest range?\nA. neap\nB. spring\nCorrect answer: spring`,
    questions: ['one: Which tide has the greatest range? | neap | *spring'],
  },
  {
    habit: 'the right option with its letter and words',
    text: `1. A vessel aground shows\nA. one ball\nB. three balls\nAnswer: B. three balls`,
    questions: ['one: A vessel aground shows | one ball | *three balls'],
  },
  {
    habit: 'explanations and hints',
    text: `1. How high is the tide after two hours by the rule of twelfths?\na) 1/12\nb) 3/12 *\nHint: one and two\nExplanation: one twelfth in the first hour, two in the second`,
    questions: ['one: How high is the tide after two hours by the rule of twelfths? | 1/12 | *3/12'],
  },
  {
    habit: 'questions over several lines',
    text: `1. You steer 090 degrees at 6 knots.\nThe stream sets 180 degrees at 2 knots.\nWhere are you after an hour?\na) south of your course *\nb) north of your course`,
    questions: [
      'one: You steer 090 degrees at 6 knots.\nThe stream sets 180 degrees at 2 knots.\nWhere are you after an hour? | *south of your course | north of your course',
    ],
  },
  {
    habit: 'options over several lines',
    text: `1. A safe speed is\na) one at which she can be stopped\n   in the distance that can be seen *\nb) her full speed`,
    questions: ['one: A safe speed is | *one at which she can be stopped in the distance that can be seen | her full speed'],
  },
  {
    habit: 'numbers with units',
    text: `1. How deep is it where the chart says 4.2 and the tide is 3.1 m?\nAnswer: 7.3 m\n2. How far in two hours at 6 knots?\nAnswer: 12 nm`,
    questions: ['number: How deep is it where the chart says 4.2 and the tide is 3.1 m? = 7.3 m', 'number: How far in two hours at 6 knots? = 12 nm'],
  },
  {
    habit: 'model answers',
    text: `1. Why do springs come after full moon?\nModel answer: The water answers later than sun and moon pull together.\n2. What is a lee?\nAnswer: the side away from the wind`,
    questions: [
      'open: Why do springs come after full moon? = The water answers later than sun and moon pull together.',
      'short: What is a lee? = the side away from the wind',
    ],
  },
  {
    habit: 'a title and instructions before',
    text: `Passage planning test\nAnswer all questions. You have 20 minutes.\n\n1. What is a waypoint?\nAnswer: a place on the way\n2. What is a bearing?\nAnswer: a direction`,
    title: 'Passage planning test',
    questions: ['short: What is a waypoint? = a place on the way', 'short: What is a bearing? = a direction'],
  },
  {
    habit: 'headings as in marked text',
    text: `## Lights\n1. A masthead light is\na) white *\nb) red\n\n## Sounds\n2. A long blast takes\na) 1 second\nb) 4 to 6 seconds *`,
    questions: ['one: A masthead light is | *white | red', 'one: A long blast takes | 1 second | *4 to 6 seconds'],
  },
  {
    habit: 'numbers that begin again in each part',
    text: `Section 1: Rules\n1. Power gives way to\na) sail *\nb) power\nSection 2: Signals\n1. Fog, under way\na) one long blast *\nb) a bell`,
    questions: ['one: Power gives way to | *sail | power', 'one: Fog, under way | *one long blast | a bell'],
  },
  {
    habit: 'no key at all',
    text: `1. Which pilot book is for this coast?\na) the northern one\nb) the southern one\n2. What is the clearing bearing?`,
    questions: ['one: Which pilot book is for this coast? | the northern one | the southern one', 'open: What is the clearing bearing? ='],
  },
  {
    habit: 'tabs and double spaces of a table',
    text: `1.\tWhich flag says yes?\na.\tC *\nb.\tN\n2.\tWhich flag says no?\na.\tC\nb.\tN *`,
    questions: ['one: Which flag says yes? | *C | N', 'one: Which flag says no? | C | *N'],
  },
  {
    habit: 'options without any sign, the right one bold',
    text: `1. Which is a knot?\nsheepshank trumpet\n**bowline**\nhalyard\n2. Which is a sail?\n**jib**\nkeel\nrudder`,
    questions: ['one: Which is a knot? | sheepshank trumpet | *bowline | halyard', 'one: Which is a sail? | *jib | keel | rudder'],
  },
  {
    habit: 'options without any sign, a star before the right one, the question not ending as one',
    text: `1. Port lights are\n*red\ngreen\nwhite\n2. Overtaken vessels\nstand on\n*keep out of the way`,
    questions: ['one: Port lights are | *red | green | white', 'one: Overtaken vessels | stand on | *keep out of the way'],
  },
  {
    habit: 'a dash for the number and round boxes',
    text: `1 - Which end does the anchor cable come from?\n( ) stern\n(x) bow\n2 - Which side is starboard?\n(x) right\n( ) left`,
    questions: ['one: Which end does the anchor cable come from? | stern | *bow', 'one: Which side is starboard? | *right | left'],
  },
  {
    habit: 'alternatives that are all right',
    text: `1. What is the stream called that comes in?\nAnswer: flood; flood stream\n2. What is the name of the rising tide's opposite?\nAnswer: ebb or falling tide`,
    questions: [
      'short: What is the stream called that comes in? = flood / flood stream',
      "short: What is the name of the rising tide's opposite? = ebb / falling tide",
    ],
  },
];
