import type { TextPage } from './page.ts'

/** How a suspension works, as far as somebody needs it who turns its dials. */
export const worksPages: TextPage[] = [
  {
    key: 'spring-and-damper',
    title: 'Spring and damper',
    also: 'damping ratio overshoot swing settle',
    text: [
      'A spring holds the rider up and stores what a bump puts in. Alone it would give it all back and swing on. A damper turns motion into heat: it decides how fast the unit goes in and comes back out.',
      'How much damping is right depends on spring and mass together. The damping ratio says how much of what would just stop a swing is there: at 0.2 it bounces on, at 0.6 it comes back once and rests, at 1 it creeps. Rebound feels right at about 0.55 to 0.7.',
      'That is why a firmer spring needs slower rebound: the same click is a smaller ratio on a stiffer spring.',
    ],
    figure: 'let-go',
    see: ['dials/rebound', 'feels/pogo', 'feels/stays-down', 'words/damping-ratio'],
  },
  {
    key: 'packing',
    title: 'Packing: it cannot come back before the next hit',
    also: 'packs sinks valley drift jackhammer hits in a row',
    text: [
      'Hits come faster than the unit gets back out. Each one begins deeper, in a stiffer part of the stroke, until it is harsh and low. It shows only at speed: slower, there is time enough.',
      'The time between hits is their distance over the speed: bumps a metre apart at 36 km/h leave a tenth of a second.',
    ],
    lists: [
      {
        title: 'Told apart from',
        items: [
          'Too fast: bounces on after one hit, also when slow.',
          'Too firm: harsh from the first bump, and the ring stays low.',
          'Too much compression: harsh on single edges, not along a row.',
        ],
      },
      {
        title: 'What to do',
        items: [
          'Rebound one or two clicks faster, then the same row at the same speed.',
          'Still there after three clicks: look at sag. A soft spring rides deep and looks alike.',
        ],
      },
    ],
    cautions: ['rebound'],
    figure: 'row-of-hits',
    see: ['feels/harsh-gets-worse', 'dials/rebound'],
  },
  {
    key: 'low-and-high-speed',
    title: 'Low and high speed',
    also: 'shaft speed bike speed third of travel LSC HSC valve shim',
    text: [
      'The speed of the shaft is meant, not that of the bike. Braking, berms and weight shifts move it slowly whatever the pace; a square edge moves it fast even at walking pace.',
      'At low shaft speed oil flows through a small hole that a needle closes click by click. At high shaft speed a stack of thin plates bends open. Two dials, two ways for the oil.',
      'Some teach “the first third of travel” against “the rest”. On a trail the two go together, but it is not what the valve does.',
    ],
    figure: 'two-speeds',
    see: ['dials/low-speed-compression', 'dials/high-speed-compression'],
  },
  {
    key: 'air-spring-and-spacers',
    title: 'Air spring and spacers',
    also: 'progressive ramp curve volume',
    text: [
      'Air pressed to half its room pushes more than twice as hard, for it also gets warm. So an air spring grows stiffer towards the end of the stroke: it ramps up.',
      'A spacer takes room away. At sag that hardly shows; near the end it shows much. So pressure sets how high the bike rides, and spacers how it ends.',
    ],
    lists: [
      {
        title: 'In use',
        items: [
          'Harsh at the start and bottoms: too linear. A spacer more and a little less air.',
          'Bottoms with sag right: a spacer, not pressure.',
          'Nine tenths of travel on the hardest hit is about right; all of it once in a while is fine.',
        ],
      },
    ],
    cautions: ['trapped', 'maximum'],
    figure: 'air-spring',
    see: ['dials/spacers', 'feels/harsh-and-bottoms'],
  },
  {
    key: 'negative-chamber',
    title: 'The negative chamber, and equalising',
    also: 'equalise stuck down locked solid cycle chambers',
    text: [
      'Below the piston a second, small chamber pulls the unit in, so that its start is not stiff. Both chambers find one pressure through a small groove that is open only near full extension.',
      'After inflating, cycle it slowly until both have met; the gauge then reads less than before. Inflating without cycling leaves the unit stuck down, or locked as if it were solid.',
    ],
    cautions: ['pump', 'lockedSolid'],
    figure: 'negative-chamber',
    see: ['differ/equalise', 'dials/pressure'],
  },
  {
    key: 'sag',
    title: 'Sag',
    also: 'ring o-ring ride height static target per cent',
    text: [
      'How far the unit sits into its travel under the still rider, as a share of travel (fork) or of the shaft’s stroke (shock). It is the first thing to set, and the check of every spring.',
      'On a scale of 55 mm one millimetre is 1.8 %: a single reading is no better than that. Three readings, the middle one counts.',
      'Sag on flat ground is a start. Where it rides on the trail is what counts: steep and braking, the front carries more and the rear less.',
    ],
    lists: [
      {
        title: 'Usual targets',
        items: [
          'Fork 15 to 25 %, to begin with 20.',
          'Shock 25 to 30 %; cross-country 20 to 25; downhill up to 35, some like 40.',
        ],
      },
      {
        title: 'A reading counts',
        items: [
          'in full kit, with levers open and compression open',
          'without a brake, bounced free first, in the posture of every time',
          'got off without pressing it further',
        ],
      },
    ],
    figure: 'sag-on-scale',
    see: ['differ/posture', 'words/ring', 'words/wiper'],
  },
  {
    key: 'leverage',
    title: 'Leverage',
    also: 'linkage progressive regressive falling stroke wheel travel ratio',
    text: [
      'A rear wheel moves two to three times as far as its shock. That ratio is the leverage. A shock feels the rider’s weight times it, so heavy leverage needs a stiffer spring.',
      'Where it falls through the stroke the wheel gets stiffer deep down: progressive. There, per cent of the stroke and per cent of wheel travel are not the same: 30 % of the stroke may be 32 % at the wheel.',
    ],
    figure: 'leverage-fall',
    see: ['works/sag', 'words/stroke'],
  },
  {
    key: 'heat-and-height',
    title: 'Heat, cold and height',
    also: 'temperature altitude oil thin hot day cold morning gauge pressure',
    text: [
      'Warmer air pushes harder: about 1 psi for every 3 °C in a unit set to 100 psi. At the same time oil gets thin, and damping with it. A hot bike therefore feels soft because of the oil, not the air.',
      'Cold is the other way round: the air has lost pressure and the oil is thick. Cycle it, ride it warm, then judge.',
      'A gauge shows pressure above that of the air around it. 1,000 m higher the same filling reads about 1.6 psi more, and the unit rides a little higher.',
    ],
    figure: 'heat-and-height',
    see: ['feels/soft-when-hot', 'feels/slow-when-cold', 'care/cold'],
  },
  {
    key: 'counting-clicks',
    title: 'Counting clicks the same way twice',
    also: 'clicks from closed from open base zero one recount stop lost count lose',
    text: [
      'Three bases are in use: from fully closed with the stop as 0, from fully closed with the stop as 1, and from fully open. Each dial keeps its own; the base stands beside the number. Clockwise closes: slower rebound, firmer compression.',
    ],
    lists: [
      {
        title: 'The safe way',
        items: [
          'Close it gently to the stop and count: that is where it was.',
          'Open it to where it should be, counting again.',
          'A brochure’s number of clicks is often not the dial’s: count the whole range once.',
        ],
      },
    ],
    cautions: ['stop'],
    figure: 'count-three',
    see: ['differ/count'],
  },
  {
    key: 'noise',
    title: 'Why one run proves little',
    also: 'scatter repeat same again noise normal scatter difference chance',
    text: [
      'Ride the same settings twice, and the ratings differ: by half a point or more, with nothing changed. That scatter is there in every comparison. A change has to beat it before it can be believed.',
      'So the baseline is ridden twice at the start, and now and then again in between: it says how far the day itself has moved.',
    ],
    figure: 'ride-again',
    see: ['works/bracketing', 'words/baseline-run', 'words/drift'],
  },
  {
    key: 'bracketing',
    title: 'Bracketing: past the best, and back',
    also: 'bracket click by click too far optimum',
    text: [
      'One dial, the same section, one or two clicks a time, on until it is worse. The best lies between the last two. Come back to it.',
      'Without having been too far in both directions nobody knows whether the best was passed or never reached.',
    ],
    figure: 'past-the-best',
    see: ['works/noise', 'words/settled'],
  },
  {
    key: 'balance',
    title: 'Balance of both ends',
    also: 'front rear nose low high long tucks',
    text: [
      'Both ends should move alike when they are pushed at the middle. A balanced bike that is wrong rides better than one of which only one end is right.',
      'Front low or soft against the rear: heavy in front when it is steep, tucks. Rear low or soft: the front is light, pushes wide, and the bike feels long.',
    ],
    see: ['feels/nose-heavy', 'feels/stretched', 'feels/washes-out'],
  },
]
