/**
 * What people follow and look for, each with words that tell of it, by our own hand from common knowledge: `tag > wider tag: words`.
 * A tag is written as a hashtag is, in lower case and run together; two words of a phrase are joined by a plus sign. Words are
 * compared by their stems, so that one form of each is enough. What is wider stands somewhere in the list itself.
 */
export const FIELDS = `
# Food and drink
cooking: cook recipe saucepan simmer onion garlic oven fry stir seasoning pepper ingredient boil pan sauce roast chef kitchen
baking > cooking: bake dough flour yeast oven loaf knead crumb cake pastry butter sponge tray batter tin
breadbaking > baking: bread loaf sourdough dough crust knead proof prove starter bun roll crumb hydration
cakes > baking: cake icing sponge frosting cupcake buttercream birthday layer
cheese > food: cheese curd rennet cheddar rind brine dairy whey milk wheel
fermentation > food: ferment kimchi sauerkraut brine kefir kombucha vinegar starter salt bubbling sour
preserving > food: jam pickle preserve jar chutney pectin marmalade
butchery > food: butcher sausage carcass mince sirloin brisket meat knife
foraging > nature: forage mushroom nettle berry wild elderflower
coffee > food: coffee espresso roast grinder bean barista crema filter
tea > food: tea kettle teapot brew leaf infusion cup milk
wine > food: wine vineyard grape cellar vintage cork bottle tasting red+wine
brewing > food: brew beer hop malt mash barrel keg ale
cider > food: cider apple press orchard juice ferment barrel
food: food eat meal taste flavour dish lunch dinner breakfast
hospitality > smallbusiness: waiter waitress table restaurant till guest menu booking cafe hotel tip kitchen bar+staff waiting+table
restaurants > hospitality: restaurant menu chef waiter cover kitchen booking dessert
cafe > hospitality: cafe barista counter cake takeaway coffee sandwich
hotels > hospitality: hotel guest reception room check-in housekeeping bed breakfast stay key
catering > hospitality: catering buffet canteen portion banquet lunch trays guests
foodallergies > health: allergy allergen peanut gluten sesame lactose intolerance coeliac nut anaphylaxis
nutrition > health: protein vitamin calorie fibre nutrient diet sugar carbohydrate
vegetarian > cooking: vegetarian vegan tofu lentil plant-based meat bean
flour > baking: mill flour grain rye spelt bran wheat wholemeal millstone
# Garden, farm and land
gardening: garden plant soil compost seed weed prune bed watering mulch pot hedge lawn greenhouse spade flower bulb shrub seedling
vegetablegrowing > gardening: vegetable potato tomato bean allotment sow courgette carrot cabbage lettuce seedling harvest tuber
allotment > gardening: allotment plot shed compost vegetable slug
flowers > gardening: flower rose bouquet bloom petal dahlia tulip florist vase garden
lawncare > gardening: lawn mow mower grass turf moss
hedges > gardening: hedge trimmer clipping privet hawthorn trim blade cutter garden
houseplants > gardening: houseplant repot windowsill leaf pot monstera water soil
composting > gardening: compost heap worm scrap peelings bin rot garden
irrigation > gardening: irrigation drip hose watering emitter timer tap sprinkler pressure
trees > nature: tree oak trunk bark branch woodland canopy sapling forest
orchard > fruitgrowing: orchard apple pear plum blossom graft rootstock pruning
fruitgrowing > gardening: fruit apple berry strawberry raspberry pear plum blossom frost picking
viticulture > farming: vineyard vine grape harvest wine
farming: farm field crop harvest tractor livestock soil barn cattle farmer sheep hay acre grain fence
smallholding > farming: smallholding goat hen sheep pig duck acre chicken paddock trough
livestock > farming: cow cattle calf bull herd vet milk udder hoof colostrum lameness
sheep > smallholding: sheep lamb ewe ram flock fleece hoof hurdle shear
goats > smallholding: goat kid milk nanny billy hoof milking pen
pigs > smallholding: pig sow piglet boar trough swine bacon sty
poultry > smallholding: hen chicken egg coop rooster poultry duck
horses: horse saddle bridle stable hoof pony farrier riding mare foal
beekeeping > smallholding: bee hive honey queen swarm frame colony comb wax varroa brood apiary mite
dairy > farming: dairy milk cow churn butter cream parlour milking cheese
forestry > nature: forest timber log chainsaw felling woodland spruce
potatoes > farming: potato tuber seed+potato ridge chit blight haulm
fishing: fish fisherman rod bait hook trout salmon cod net trawler angling
fishfarming > fishing: salmon tank hatchery fish cage feed
hunting: hunt deer rifle stalking pheasant gun shoot
soil > farming: soil clay loam acid manure nutrient
# Animals and nature
nature: nature wild river wildlife meadow species habitat forest
wildlife > nature: wildlife fox badger hedgehog otter deer bat habitat
birdwatching > wildlife: bird binoculars nest feather gull heron owl finch warbler hide migration goose birding sparrow
insects > nature: insect beetle moth butterfly ant wasp larva bug spider sting
conservation > nature: conservation habitat species rewilding reserve wetland peat endangered protect
marinebiology > science: reef coral whale seal plankton ocean dolphin fish
pets: pet cat dog rabbit hamster vet cage
dogs > pets: dog puppy lead bark leash breed collar labrador harness terrier kennel
dogtraining > dogs: dog puppy obedience lead harness reward recall training+dog
guidedogs > dogs: guide+dog harness kerb blind handler puppy+walker
cats > pets: cat kitten litter purr whisker paw scratch
vets > animals: vet veterinary vaccine injection hoof calf antibiotic dose sick
animals: animal feed pen breed zoo cage tame
climate > environment: climate emission carbon warming temperature glacier flood drought sea+level
environment: environment pollution recycling carbon waste plastic river rubbish
recycling > environment: recycle plastic landfill rubbish bin cardboard bottle sort
weather: weather forecast storm rain thunder barometer cloud wind front cold sun degrees
astronomy > science: telescope star planet galaxy moon comet orbit sky night
geology > science: rock fossil mineral limestone granite volcano layer earthquake crystal
# Home and building
diy: drill screw screwdriver saw sandpaper paint plaster plank bracket hammer spanner
homerenovation > diy: bathroom renovation plaster kitchen ceiling wall floorboard builder skirting
plumbing > diy: pipe tap valve leak plumber boiler radiator drain toilet cistern
electrics > diy: wire socket fuse circuit electrician switch cable
heating: heat+pump boiler radiator thermostat cylinder insulation heating flow+temperature gas+boiler
heatpumps > heating: heat+pump refrigerant cylinder flow+temperature heat+loss radiator installer compressor kilowatt
energysaving > home: insulation energy+bill draught meter loft tariff
solarpower > energysaving: solar panel inverter battery roof
tiling > diy: tile grout adhesive tiler spacer batten trowel tanking
bathrooms > homerenovation: bathroom shower bath basin tray toilet grout
painting > diy: paint brush roller primer undercoat wall ceiling tin
carpentry > woodworking: joint timber chisel plane carpenter saw joinery mortise
woodworking > craft: wood chisel lathe plane saw oak glue bench joint walnut
furniture > woodworking: chair table sofa upholstery cabinet drawer wooden legs
roofing > building: roof slate tile gutter ladder rafter roofer leak flashing
bricklaying > building: brick mortar trowel wall scaffold bricklayer lime
building: builder scaffold concrete foundation brick site architect planning+permission
architecture: architect facade building blueprint column roof plan wall
interiordesign > home: curtain cushion wallpaper sofa colour lamp room paint
cleaning > home: clean mop bucket sponge stain bleach vacuum laundry
home: house kitchen sofa bedroom window
tidying > home: tidy clutter declutter drawer wardrobe shelf mess throw
houseselling > property: estate+agent viewing mortgage buyer asking+price survey
property: tenant landlord rent mortgage lease flat deposit house buy
locks > diy: lock key burglar latch deadbolt door locksmith
# Crafts and arts
craft: craft handmade workshop tool maker apprentice
sewing > craft: sew needle thread stitch fabric hem bobbin seam cotton dressmaking
sewingmachines > sewing: sewing+machine bobbin tension presser+foot needle pedal thread
knitting > craft: knit wool yarn needle stitch jumper crochet
weaving > craft: loom weave warp weft yarn shuttle pattern cloth weaver
embroidery > sewing: embroidery stitch hoop thread pattern cloth
quilting > sewing: quilt patchwork fabric square pattern
leatherwork > craft: leather hide awl saddle stitch strap belt cut
pottery > craft: clay kiln glaze wheel potter pot ceramic firing slip bisque throwing
blacksmithing > craft: forge anvil iron hammer blacksmith steel horseshoe hot
glass > craft: glass furnace stained blow window pane molten
jewellery > craft: ring silver gold gem necklace solder diamond jeweller bracelet
watchmaking > craft: watch clock spring dial escapement gear strap watchmaker
clocks > repair: clock pendulum spring dial escapement cog hands chime wind
bookbinding > craft: binding spine paper glue folio book cover sew
printing > craft: print ink press type plate letterpress roller page
calligraphy > craft: pen ink nib lettering brush paper
paper > craft: papermaking origami pulp fibre watermark
baskets > craft: basket willow weave cane reed rim
candles > craft: candle wax wick scent mould burn
repair: repair fix broken mend spare+part screwdriver replacement
restoration > repair: restore restoration rust varnish patina strip antique
antiques > collecting: antique auction dealer furniture porcelain old value bid
collecting: collector collection stamp coin rare value album
modelmaking > hobby: model kit glue railway miniature paint scale
hobby: hobby amateur weekend club collect evening
art: painting artist canvas gallery sculpture exhibition drawing brush
drawing > art: draw pencil sketch charcoal paper line shade
sculpture > art: sculpture chisel marble bronze statue carve stone
museums > heritage: museum exhibit curator gallery visitor collection
heritage > history: heritage castle listed ruin monument tradition
photography: camera lens photo shutter exposure tripod focus aperture zoom flash picture
film: film camera director scene actor shoot screenplay cinema shot edit
animation > film: animation cartoon frame drawn draw character
theatre: theatre stage actor rehearsal audience curtain play lights props
dance: dance dancer ballet choreography step floor music
music: music song band guitar concert album melody
singing > music: sing choir voice song soprano
guitar > music: guitar string chord fret amplifier
piano > music: piano key keyboard pedal tuning
violin > music: violin bow string luthier
drums > music: drum drummer cymbal beat
choir > singing: choir alto tenor soprano rehearsal
songwriting > music: lyric chorus verse song
recording > music: microphone studio mix track
design: design designer logo font layout colour poster draw
fashion: fashion dress clothes fabric tailor shirt style wear model
writing: writer novel chapter draft editor sentence
poetry > writing: poem poet verse rhyme
books > reading: book novel author read chapter
reading: book read page reader
publishing > writing: publisher print editor manuscript
journalism: journalist reporter newspaper headline interview
comedy: joke comedian funny laugh audience comic punchline
radio: radio station presenter broadcast frequency listener phone-in
podcasting: podcast episode microphone listener
storytelling: story storyteller tale narrator
games: game player board dice card play rule
chess > games: chess pawn bishop knight rook queen checkmate
videogames > games: console controller level gamer character play screen
puzzles > games: puzzle crossword jigsaw clue
magic: magician trick card illusion audience
shoerepair > repair: shoe sole heel cobbler stitch leather welt upper polish
tailoring > sewing: tailor suit lapel hem cloth measure jacket
upholstery > furniture: upholstery spring webbing horsehair fabric chair
chimneys > home: chimney flue sweep soot hearth fireplace brush stove creosote
instruments > music: organ pipe bellows string reed tuning key
lighthouses > ships: lighthouse keeper lamp storm rock foghorn
# Getting about
walking: walk walker boot footpath trail hill
hiking > walking: hike hiker trail boot summit rucksack contour waymark ridge path mountain
maps > navigation: map contour compass grid scale
navigation: navigate map compass route bearing chart gps offline position
camping > outdoors: tent campsite sleeping+bag stove fire pitch
outdoors: outdoor trail tent rucksack woods
climbing > outdoors: climb rope harness crag belay grip route wall
mountains > outdoors: mountain summit glacier ridge climb peak
skiing > outdoors: ski slope snow lift boots chairlift ice
cycling: bicycle bike cyclist pedal saddle gear wheel helmet
bicyclerepair > cycling: bicycle chain spoke puncture brake derailleur
running > fitness: run runner marathon pace training shoe mile
swimming > fitness: swim pool swimmer lane goggles stroke water
sailing > boating: sail yacht mast rigging tack keel rudder jib crew
boating: boat lock canal mooring harbour tide rope hull engine anchor skipper deck buoy
canals > boating: canal lock narrowboat paddle towpath windlass cill mooring
coastalnavigation > sailing: tide chart harbour buoy tidal depth keel clearance
rowing > boating: oar row boat cox crew blade
diving > outdoors: dive diver scuba tank underwater mask
cars: car engine driver garage tyre drive boot wheel
carrepair > cars: brake clutch gearbox mechanic exhaust engine
electriccars > cars: charger battery range electric+car charging plug kilowatt
motorbikes: motorbike helmet throttle rider engine ride
driving: driver driving steering brake mirror
busdriving > publictransport: bus driver passenger depot timetable stop fare kerb
publictransport > transport: bus train tram passenger fare timetable route ticket commuter
schooltransport > publictransport: school+bus pupil route school+run
communitytransport > transport: volunteer+driver minibus lift appointment passenger mileage
transport: transport passenger route vehicle lorry
trains > transport: train railway station track signal carriage platform driver ticket
trucks > transport: lorry truck trailer haulage load
aviation > transport: plane pilot runway aircraft airport flight wing fly landing
ships > transport: ship cargo port captain container sea crew anchor
travel: travel trip passport flight hotel tourist
roadsafety > driving: road crossing speed+limit accident pavement crash
# Work and money
smallbusiness: customer invoice supplier shop stock owner till pricing trade wholesale business
business: company customer market profit strategy sales
startups > business: startup founder investor pitch funding launch product
entrepreneurship > business: founder entrepreneur business venture risk idea
freelancing > selfemployment: freelance client invoice rate deadline quote contract
selfemployment > smallbusiness: self-employed tax+return invoice allowance expense sole+trader
retail > smallbusiness: shop customer till shelf stock counter retail
shopkeeping > retail: shop till stock shelf window counter customer
ecommerce > retail: online+shop basket checkout parcel delivery
wholesale > smallbusiness: wholesale supplier pallet order trade buyer stock bulk
markets > smallbusiness: market stall stallholder pitch trader
marketing > business: brand campaign customer advert audience
branding > marketing: brand logo identity
socialmedia > marketing: post follower hashtag platform comment
advertising > marketing: advert campaign billboard slogan
sales > business: sale customer prospect lead deal
customerservice > business: customer complaint refund helpline
packaging > business: packaging box label carton wrap tape seal
bookkeeping > smallbusiness: ledger receipt invoice spreadsheet account reconcile balance bookkeeper
accounting > business: account audit balance ledger treasurer accountant depreciation
spreadsheets > software: spreadsheet column formula cell row
tax > money: tax allowance tax+return deduction taxable income penalty assessment
payroll > hr: payroll payslip wage salary deduction overtime hourly
hr > business: employee contract recruitment appraisal grievance interview holiday resign
recruitment > hr: recruit applicant interview candidate vacancy
staffretention > hr: retention resign leaver exit+interview turnover
shiftwork > hr: shift rota roster night+shift swap
timesheets > payroll: timesheet clock overtime hour
management > leadership: manager team report meeting delegate boss staff
leadership: leader team trust decision manager
meetings > management: meeting agenda minute chair room discuss
projectmanagement > management: project deadline milestone task
productivity: productivity task calendar inbox habit focus list
remotework > workinglife: remote home+office video+call commute desk
workinglife: job colleague boss office work shift break
careers: career job promotion interview apprentice
insurance > money: insurance policy premium insurer claim cover excess loss underwriter
mortgages > money: mortgage lender deposit interest+rate loan house
pensions > money: pension retirement annuity retire state+pension
investing > money: invest share fund dividend portfolio stock risk bond
savings > money: saving bank account budget
budgeting > money: budget spend bill saving
banking > money: bank account loan transfer
money: money pound pay cost price income
economics: economy inflation market price
fundraising > charity: donor donation grant fundraise
charity > volunteering: charity trustee donation volunteer appeal cause
volunteering: volunteer volunteers coordinator committee charity helper
treasurer > charity: treasurer accounts committee subscription receipt
committees > volunteering: committee chair trustee minutes
communitywork > volunteering: community neighbour hall centre
warehouse > logistics: warehouse pallet rack picking picker barcode stock scanner shelf aisle
forklifts > warehouse: forklift fork mast truck pallet load
logistics: logistics delivery pallet warehouse dispatch lorry parcel haulier courier
supplychain > logistics: supplier shipment container inventory
manufacturing: factory machine assembly line production
engineering: engineer bearing steel torque prototype
machinery > engineering: machine gear motor belt hydraulic
welding > engineering: weld torch steel spark metal
mining > engineering: mine shaft ore coal miner pit tunnel
workplacesafety: hazard helmet risk+assessment accident safety near+miss ladder
cleaners > cleaning: cleaner mop shift floor bleach
hairdressing: hair salon scissors barber stylist cut colour client
beauty: skin cream makeup nail brush
weddings: wedding bride groom venue cake dress photographer
events: event venue ticket organiser crowd stage programme
training: training trainer course trainee
# Health and care
health: health doctor patient symptom hospital illness disease clinic
nursing > health: nurse ward patient matron shift hospital
hospitals > health: hospital ward surgeon theatre consultant nurse patient bed
medicine > health: doctor diagnosis dose drug treatment surgery treat nurse
firstaid > health: first+aid bandage cpr defibrillator compression ambulance casualty burn choking cardiac+arrest bleeding
ambulance > firstaid: ambulance paramedic stretcher crew emergency siren
pharmacy > medicine: pharmacist prescription tablet dose medicine chemist
dentistry > health: tooth dentist gum filling crown toothbrush drill
eyesight > health: eye glasses sight optician lens blind reading vision
disability: disabled wheelchair accessibility blind deaf impairment
sightloss > disability: blind sight cane guide+dog visually
hearing > health: hearing deaf ear aid loud audiologist
mentalhealth > health: anxiety depression therapist stress worry panic mood
therapy > mentalhealth: therapist counselling trauma session feelings
sleep > health: sleep insomnia bed dream tired nap snore
fitness > health: exercise muscle gym training
yoga > fitness: yoga pose breath stretch mat instructor
physiotherapy > health: physiotherapist knee joint muscle exercise injury stretch
backpain > health: back spine posture chair lifting ache
pregnancy > parenting: pregnant midwife birth baby labour trimester scan
midwifery > nursing: midwife birth labour pregnant baby ward
parenting: parent child toddler baby nappy teenager bedtime tantrum
children > parenting: child toddler playground kid toy school
adoption > parenting: adopt foster child family agency
caring: carer care+home dementia elderly nurse lift wash
ageing: old age elderly retirement pensioner old+people frail
dementia > caring: dementia memory carer confused forget
death: funeral grief grave undertaker coffin burial ashes
grief > death: grief loss mourning mourn widow memory
relationships: marriage husband wife partner divorce love couple wedding
friendship > relationships: friend friendship lonely trust loyal
# Learning and society
education: school teacher pupil lesson classroom exam
teaching > education: teacher lesson pupil classroom homework
schools > education: school headteacher pupil class playground
university > education: university lecture student degree professor campus thesis
learning: learn practice lesson beginner skill memory teach
languagelearning > learning: language vocabulary grammar accent pronunciation fluent verb translate
learnenglish > languagelearning: english pronunciation grammar vowel accent listening
translation > languagelearning: translate interpreter translator language meaning text
bilingualism > languagelearning: bilingual mother+tongue accent language parents
speech > communication: voice pronounce stammer speech vowel
publicspeaking > communication: speech audience stage nervous speaker slide applause
communication: conversation listen message talk feedback misunderstanding
libraries: library librarian catalogue shelf borrow loan book reader
archives > history: archive document record catalogue paper box letter
localhistory > history: parish village mill old photograph chapel railway map
genealogy > history: ancestor family+tree birth certificate grandfather census relative
history: century war king historian empire ancient medieval battle
archaeology > history: dig trench excavate pottery artefact site bone
philosophy: philosopher ethics argument moral truth meaning reason
religion: church priest prayer faith bible vicar worship
psychology: brain behaviour bias memory emotion therapist experiment
science: experiment scientist laboratory theory research hypothesis test
physics > science: particle energy quantum atom force gravity
chemistry > science: molecule acid reaction solvent compound atom
biology > science: cell gene species organism dna evolution
mathematics: equation number theorem proof geometry algebra fraction
statistics > mathematics: average sample probability percentage survey mean
law: court judge lawyer contract trial jury legal
crime: police burglar prison thief stolen gang
fraud > crime: fraud scam scammer bank+details victim fake money
fireservice: fire firefighter smoke alarm engine hose ladder
police > crime: police officer arrest suspect constable detective
politics: election vote council minister party parliament campaign
localgovernment > politics: council councillor parish clerk
planning > localgovernment: planning permission council objection application site
publicservices > localgovernment: council service resident library bin cuts
housing: tenant council+house rent landlord estate flat
villagelife > community: village pub green hall parish shop church
community: neighbour community hall street residents local gathering
cities: city street tram traffic square centre
immigration: visa border refugee passport asylum citizen
emergency: emergency siren evacuate flood
floods > emergency: flood river sandbag water damage
# Technology
technology: device gadget screen battery
software: software app click screen button menu login update
softwarereview > software: app trial version feature subscription
apps > software: app phone download notification install account
programming > software: code bug function developer program test release
webdesign > software: website browser layout web+page homepage
data > software: data database dashboard record query
cybersecurity > technology: password hacker phishing virus malware firewall
passwords > cybersecurity: password login account code
artificialintelligence > technology: algorithm robot model training prompt data
robots > technology: robot sensor arm automation gripper program
electronics > technology: resistor solder circuit board capacitor voltage
computers > technology: computer laptop keyboard printer mouse file
phones > technology: phone charger battery signal
audio > technology: microphone speaker headphone amplifier volume sound
lighting > technology: lamp bulb led shade dimmer bright
drones > technology: drone propeller battery pilot rotor flying gimbal
printing3d > technology: printer filament nozzle layer plastic extruder
smarthome > technology: thermostat sensor timer app
space > science: rocket orbit astronaut satellite launch gravity
energy > technology: grid turbine power+station electricity solar gas
windpower > energy: turbine blade wind offshore mast
batteries > energy: battery charge lithium cell volt charging
tools > diy: drill spanner blade saw cordless
toolreview > tools: blade battery cordless trimmer cutting
# Sport
sport: coach match team referee training
football > sport: football goal pitch goalkeeper striker penalty offside midfield
rugby > sport: scrum try tackle lineout prop ruck
cricket > sport: wicket bowler batsman umpire stumps
tennis > sport: racket serve court set umpire volley
golf > sport: golf golfer fairway bunker hole caddie
athletics > sport: sprint javelin track athlete hurdle relay
boxing > sport: boxer boxing punch gloves knockout
martialarts > sport: karate judo belt kick dojo throw
gymnastics > sport: gymnast vault somersault balance+beam trampoline
icehockey > sport: puck ice rink goalie skate
coaching > sport: coach athlete drill session squad mentor
bowls > sport: bowls jack bowling+green skittles
darts > games: darts board throw treble bullseye
`;

/** Fields that most talk touches in passing, whatever it is about. */
export const MEANS: ReadonlySet<string> = new Set(
  'money software apps phones reading batteries packaging spreadsheets restaurants home children relationships'.split(' '),
);
