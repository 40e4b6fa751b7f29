/**
 * What people tag beside the name of a field, by our own hand from common knowledge: `field: its other names; word=tag`. A tag
 * behind a word is of passages that say the word; two words of a phrase are joined by a plus sign. Words are compared by their
 * stems. Other names go from the one that is used most.
 */
export const FIELD_TAGS = `
# Food and drink
cooking: homecooking recipes cookingtips; recipe=recipes roast=roastdinner chef=cheflife onion=onions sauce=homemadesauce soup=soup
baking: homebaking bakingtips baker; cake=cakes yeast=yeast biscuit=biscuits pastry=pastry flour=flour
breadbaking: homemadebread bread realbread; sourdough=sourdough dough=breaddough roll=breadrolls crust=crust knead=kneading prove=proving
cakes: cakedecorating cakemaking; icing=icing birthday=birthdaycake sponge=spongecake cupcake=cupcakes buttercream=buttercream
cheese: cheesemaking cheeselover; rennet=rennet cheddar=cheddar milk=rawmilk rind=cheeserind brine=brine whey=whey
fermentation: fermentedfoods fermenting; kimchi=kimchi sauerkraut=sauerkraut kombucha=kombucha kefir=kefir brine=brine
preserving: homemadejam canning; jam=jam pickle=pickling chutney=chutney marmalade=marmalade jar=canning
butchery: butcher meat; sausage=sausages knife=butcherknife mince=mincedmeat brisket=brisket
foraging: foraged wildfood; mushroom=mushroomforaging nettle=nettles elderflower=elderflower berry=wildberries
coffee: coffeelovers homebarista; espresso=espresso grinder=coffeegrinder barista=barista bean=coffeebeans roast=coffeeroasting
tea: tealovers teatime; teapot=teapot leaf=looseleaftea kettle=kettle
wine: winelovers winemaking; vineyard=vineyard vintage=vintage tasting=winetasting grape=grapes
brewing: homebrewing beer; malt=malt barrel=barrel ale=ale keg=keg
cider: cidermaking craftcider; apple=ciderapples press=ciderpress barrel=barrel
food: foodie eating; breakfast=breakfast flavour=flavour
hospitality: waitingtables frontofhouse hospitalitylife; waiter=waiters waitress=waitress guest=guests menu=menu booking=bookings kitchen=kitchenlife restaurant=restaurantlife chef=cheflife
restaurants: restaurantlife restaurantowner; menu=menu chef=cheflife kitchen=kitchenlife booking=noshows waiter=waitingtables
cafe: coffeeshop cafelife; barista=barista cake=cafecake sandwich=sandwiches takeaway=takeaway
hotels: hotellife hotelier; guest=hotelguests reception=hotelreception housekeeping=housekeeping breakfast=hotelbreakfast
catering: caterer eventcatering; buffet=buffet canteen=canteen wedding=weddingcatering portion=portions
foodallergies: allergyawareness foodallergy foodsafety; peanut=peanutallergy nut=nutallergy gluten=glutenfree coeliac=coeliac sesame=sesameallergy lactose=lactoseintolerance milk=milkallergy egg=eggallergy intolerance=foodintolerance anaphylaxis=anaphylaxis kitchen=kitchenlife waiter=waitingtables
nutrition: healthyeating nutritiontips; protein=protein vitamin=vitamins fibre=fibre calorie=calories
vegetarian: plantbased meatfree; vegan=vegan tofu=tofu lentil=lentils bean=beans
flour: milling homemilling; mill=homemilling wheat=wheat rye=rye grain=wholegrain spelt=spelt bread=breadbaking
# Garden, farm and land
gardening: gardeningtips garden gardener; weed=weeding soil=soilhealth seed=seeds pot=containergardening greenhouse=greenhouse lawn=lawncare bulb=bulbs prune=pruning mulch=mulching slug=slugs compost=compost shrub=shrubs mildew=mildew tomato=tomatoes courgette=courgettes
vegetablegrowing: growyourown vegetablegarden kitchengarden; tomato=tomatoes carrot=carrots courgette=courgettes cabbage=cabbages bean=beans lettuce=lettuce seedling=seedlings
allotment: allotmentlife growyourown; shed=shed plot=allotmentplot slug=slugs compost=compost
flowers: flowerlovers cutflowers; rose=roses dahlia=dahlias tulip=tulips bouquet=bouquet florist=florist
lawncare: lawn greenlawn; mow=mowing mower=lawnmower moss=moss turf=turf
hedges: hedgetrimming hedgecutting gardentools; trimmer=hedgetrimmer privet=privethedge hawthorn=hawthornhedge battery=cordlesshedgetrimmer wasp=wasps blade=hedgetrimmer nest=nestingbirds
houseplants: indoorplants plantcare; repot=repotting leaf=leafcare windowsill=windowsillplants
composting: compost compostheap; worm=wormcompost heap=compostheap peelings=kitchenscraps
irrigation: gardenwatering dripirrigation wateringsystem; timer=wateringtimer drip=dripirrigation hose=gardenhose tap=gardentap pressure=waterpressure sprinkler=sprinkler battery=wateringtimer
trees: treecare woodland; oak=oaktree bark=bark forest=forest sapling=saplings
orchard: appletrees appleorchard; apple=appletree pear=peartree plum=plumtree graft=grafting pruning=treepruning blossom=blossom frost=springfrost
fruitgrowing: fruittrees growyourownfruit; apple=applegrowing strawberry=strawberries raspberry=raspberries pear=pears frost=springfrost plum=plums
viticulture: vineyard winegrowing; grape=grapes vine=grapevines harvest=grapeharvest
farming: farmlife farmer agriculture; tractor=tractor cattle=cattle harvest=harvest barn=barn soil=soilhealth crop=crops hay=hay grain=grain
smallholding: smallholder homesteading countrylife; goat=goats hen=backyardhens chicken=backyardchickens pig=pigs sheep=sheep duck=ducks
livestock: livestockfarming cattlefarming; calf=calves cow=dairycows milk=dairycows lameness=lameness colostrum=colostrum bull=bull vet=farmvet
sheep: sheepfarming sheepkeeping; lamb=lambing ewe=ewes ram=ram fleece=fleece shear=shearing hoof=sheepfeet lameness=lamesheep
goats: goatkeeping goatlife; kid=goatkids milk=goatsmilk milking=goatsmilk
pigs: pigkeeping pigfarming; sow=sow piglet=piglets bacon=bacon
poultry: chickenkeeping backyardchickens; egg=freshegg hen=backyardhens coop=chickencoop duck=ducks rooster=rooster
horses: equestrian horseriding; saddle=saddle pony=ponies hoof=hoofcare farrier=farrier foal=foal riding=horseriding
beekeeping: bees beekeeper honeybees; queen=queenbee hive=beehives swarm=swarm honey=honey varroa=varroa mite=varroa winter=winterbees frame=hiveframes brood=brood wax=beeswax colony=beecolony inspection=hiveinspection
dairy: dairyfarming dairyfarm; cow=dairycows milk=dairymilk cheese=cheese butter=butter cream=cream milking=milking
forestry: woodlandmanagement forester; chainsaw=chainsaw timber=timber felling=treefelling log=logs
potatoes: potatogrowing potatofarming seedpotatoes; blight=potatoblight seed=seedpotatoes tuber=seedpotatoes virus=potatovirus planter=potatoplanter store=potatostorage storage=potatostorage
fishing: angling fisherman; trout=troutfishing salmon=salmon bait=bait cod=cod net=fishingnets rod=fishingrod
fishfarming: aquaculture fishfarm; salmon=salmon feed=fishfeed tank=aquaculture
hunting: deerstalking gamekeeper; deer=deer rifle=rifle pheasant=pheasants
soil: soilhealth healthysoil; clay=clayworksoil manure=manure acid=soilph
# Animals and nature
nature: naturelovers wildlife outdoors; river=rivers meadow=meadow forest=forest wild=wildplaces
wildlife: wildanimals nature; fox=foxes badger=badgers hedgehog=hedgehogs otter=otters deer=deer bat=bats
birdwatching: birding birds birdphotography; binoculars=binoculars nest=nestingbirds owl=owls gull=gulls goose=geese migration=birdmigration feather=feathers hide=birdhide finch=finches heron=heron camera=birdphotography lens=birdphotography photo=birdphotography picture=birdphotography
insects: bugs entomology; butterfly=butterflies moth=moths ant=ants wasp=wasps beetle=beetles spider=spiders
conservation: wildlifeconservation savenature; wetland=wetlands peat=peatland species=endangeredspecies rewilding=rewilding
marinebiology: oceanlife marinelife; coral=coralreef whale=whales dolphin=dolphins seal=seals plankton=plankton
pets: petcare petowner; cat=cats dog=dogs rabbit=rabbits hamster=hamster vet=vet
dogs: doglife doglovers dogowner; puppy=puppy lead=dogwalking bark=barking breed=dogbreeds labrador=labrador terrier=terrier collar=dogcollar
dogtraining: dogtrainer dogtrainingtips; puppy=puppytraining reward=rewardtraining lead=leadtraining harness=dogharness
guidedogs: guidedog assistancedogs workingdogs; puppy=guidedogpuppy harness=guidedogharness blind=sightloss kerb=guidedogtraining trainer=guidedogtrainer training=guidedogtraining
cats: catlovers catlife; kitten=kitten litter=littertray scratch=scratching
vets: vetlife farmvet animalhealth; calf=calves vaccine=vaccination goat=goathealth sheep=sheephealth cow=cattlehealth dog=doghealth cat=cathealth hen=henhealth pig=pighealth horse=horsehealth antibiotic=antibiotics
animals: animallovers animalcare; zoo=zoo breed=breeding
climate: climatechange globalwarming; carbon=carbonemissions flood=flooding drought=drought glacier=glaciers
environment: sustainability ecofriendly; plastic=plasticpollution waste=zerowaste recycling=recycling river=cleanrivers
recycling: zerowaste reuse; plastic=plasticwaste cardboard=cardboard bin=bins landfill=landfill
weather: weatherforecast weatherwatch; storm=storms thunder=thunderstorm cloud=clouds
astronomy: stargazing nightsky; telescope=telescope moon=moon planet=planets comet=comet galaxy=galaxies
geology: rocks earthscience; fossil=fossils crystal=crystals granite=granite limestone=limestone earthquake=earthquakes
# Home and building
diy: diytips homeimprovement; drill=drilling paint=painting saw=sawing plaster=plastering bracket=shelving hammer=tools
homerenovation: renovation homeimprovement; kitchen=kitchenrenovation bathroom=bathroomrenovation plaster=plastering builder=builders floorboard=floorboards
plumbing: plumber plumbingtips; leak=leaks boiler=boiler toilet=toilet radiator=radiators tap=taps drain=drains valve=valves
electrics: electrician electricalsafety; fuse=fuses socket=sockets wire=wiring switch=switches
heating: homeheating energybills; boiler=gasboiler radiator=radiators thermostat=thermostat insulation=insulation cylinder=hotwater
heatpumps: heatpump homeheating energybills; boiler=gasboiler insulation=insulation radiator=radiators installer=heatpumpinstaller refrigerant=refrigerant wall=solidwalls cost=runningcosts bill=energybills curve=heatingcurve noise=heatpumpnoise cylinder=hotwatercylinder
energysaving: saveenergy energybills; draught=draughtproofing loft=loftinsulation meter=smartmeter tariff=energytariff
solarpower: solarpanels solarenergy; panel=solarpanels battery=homebattery roof=solarroof inverter=inverter
tiling: bathroomtiling walltiling tiler; grout=grouting adhesive=tileadhesive shower=showertiling niche=showerniche corner=tilingcorners batten=tilingbatten waterproof=waterproofing tanking=waterproofing silicone=silicone tray=showertray porcelain=porcelaintiles cut=cuttingtiles
bathrooms: bathroomrenovation bathroomdesign; shower=shower tray=showertray basin=basin grout=grouting
painting: paintinganddecorating decorating; brush=paintbrush roller=paintroller primer=primer ceiling=ceilings
carpentry: carpenter joinery; timber=timber joint=woodjoints chisel=chisels saw=handsaw
woodworking: woodwork woodworker; oak=oak walnut=walnut lathe=woodturning chisel=chisels joint=joinery plane=handplane
furniture: furnituremaking furnituredesign; chair=chairs sofa=sofa drawer=drawers
roofing: roofer roofrepair; slate=slateroof gutter=gutters leak=roofleak ladder=laddersafety tile=rooftiles
bricklaying: bricklayer masonry; mortar=mortar lime=limemortar brick=bricks scaffold=scaffolding
building: construction builders; concrete=concrete foundation=foundations scaffold=scaffolding
architecture: architect buildingdesign; facade=facade column=columns
interiordesign: homedecor interiors; curtain=curtains wallpaper=wallpaper sofa=sofa lamp=lighting
cleaning: cleaningtips cleanhome; stain=stainremoval laundry=laundry vacuum=vacuuming mop=mopping
home: homelife homeideas; kitchen=kitchen bedroom=bedroom
tidying: declutter organising; drawer=drawers wardrobe=wardrobe clutter=declutter
houseselling: sellingahouse estateagents; viewing=houseviewing survey=housesurvey mortgage=mortgage
property: realestate homeowner; landlord=landlords tenant=tenants rent=renting mortgage=mortgage deposit=housedeposit lease=lease
locks: locksmith homesecurity; burglar=burglary door=doorlock
# Crafts and arts
craft: handmade crafts maker; workshop=workshop apprentice=apprenticeship
sewing: sewingtips dressmaking sewist; hem=hemming needle=needles fabric=fabric seam=seams stitch=stitches
sewingmachines: sewingmachine sewingmachinerepair sewingtips; bobbin=bobbin tension=threadtension needle=sewingneedles thread=threadtension oil=sewingmachineoil foot=presserfoot pedal=sewingmachinepedal
knitting: knitter; yarn=yarn wool=wool jumper=jumper crochet=crochet
weaving: weaver handweaving; loom=loom cloth=handwovencloth yarn=yarn pattern=weavingpattern
embroidery: handembroidery needlework; stitch=stitches hoop=embroideryhoop
quilting: quilts patchwork; fabric=quiltfabric patchwork=patchwork
leatherwork: leathercraft leatherworking; saddle=saddlery belt=leatherbelt strap=leatherstrap
pottery: ceramics potter handmadepottery; kiln=kiln glaze=glazing wheel=potterswheel clay=claywork firing=firingpottery fire=firingpottery pot=handmadepots throwing=wheelthrowing
blacksmithing: blacksmith forging; anvil=anvil forge=forge iron=wroughtiron horseshoe=horseshoes
glass: glassmaking glassblowing; furnace=glassfurnace stained=stainedglass
jewellery: jewellerymaking handmadejewellery; silver=silverjewellery gold=gold diamond=diamonds gem=gemstones
watchmaking: watchmaker watchrepair; dial=watchdial spring=mainspring escapement=escapement
clocks: clockrepair clockmaker; pendulum=pendulumclock chime=chimingclock spring=mainspring
bookbinding: bookbinder handmadebooks; paper=paper spine=bookspine glue=bookglue
printing: printmaking printer; press=printingpress ink=ink letterpress=letterpress
calligraphy: lettering handlettering; ink=ink nib=nibs brush=brushlettering
paper: papercraft papermaking; origami=origami watermark=watermark
baskets: basketweaving basketmaker; willow=willow cane=cane reed=reed
candles: candlemaking handmadecandles; wax=candlewax wick=candlewick scent=scentedcandles
repair: fixit righttorepair; spare+part=spareparts screwdriver=tools
restoration: restoring restorer; rust=rustremoval varnish=varnish patina=patina
antiques: antique antiquedealer; auction=auction dealer=antiquedealer furniture=antiquefurniture porcelain=porcelain
collecting: collector collectibles; coin=coins stamp=stamps
modelmaking: scalemodels modelbuilding; railway=modelrailway paint=miniaturepainting kit=modelkit
hobby: hobbies newhobby; club=hobbyclub
art: artist artwork; gallery=artgallery sculpture=sculpture canvas=canvas exhibition=exhibition
drawing: sketching drawingtips; pencil=pencildrawing charcoal=charcoal sketch=sketchbook
sculpture: sculptor stonecarving; marble=marble bronze=bronze stone=stonecarving
museums: museum curator; exhibit=exhibition visitor=museumvisit
heritage: culturalheritage historicbuildings; castle=castles ruin=ruins
photography: photographer photographytips camera; lens=lens tripod=tripod aperture=aperture exposure=exposure zoom=zoomlens phone=phonephotography bird=birdphotography focus=autofocus
film: filmmaking cinema; actor=actors camera=cinematography edit=filmediting
animation: animator animated; cartoon=cartoon
theatre: theatrelife stage; actor=actors rehearsal=rehearsals lights=stagelighting
dance: dancer dancing; ballet=ballet
music: musician livemusic; guitar=guitar concert=concert band=band album=album
singing: singer vocals; choir=choir
guitar: guitarist guitarplayer; chord=chords amplifier=guitaramp
piano: pianist pianotuning; tuning=pianotuning
violin: violinist violinmaking; bow=violinbow string=strings
drums: drummer drumming; cymbal=cymbals
choir: choralmusic choirsinging; rehearsal=choirrehearsal
songwriting: songwriter lyrics; lyric=lyrics
recording: recordingstudio musicproduction; microphone=microphone mix=mixing
design: graphicdesign designer; logo=logodesign font=typography poster=posterdesign
fashion: style fashiondesign; dress=dresses tailor=tailoring fabric=fabric shirt=shirts
writing: writer writingtips; novel=novel editor=editing chapter=novelwriting draft=firstdraft
poetry: poems poet; rhyme=rhyme
books: booklovers booktips; novel=novels author=authors
reading: booklovers readingtips; book=books
publishing: bookpublishing publisher; editor=editor manuscript=manuscript
journalism: journalist news; newspaper=newspapers
comedy: standup comedian; joke=jokes
radio: radioshow radiopresenter; presenter=radiopresenter
podcasting: podcast podcaster; microphone=microphone
storytelling: stories storyteller; tale=folktales
games: boardgames gaming; dice=dice card=cardgames
chess: chessplayer chessgame; queen=chess knight=chess
videogames: gaming gamer; controller=gamecontroller console=console
puzzles: puzzlelovers puzzle; crossword=crossword jigsaw=jigsaw
magic: magician magictricks; card=cardtricks illusion=illusion
shoerepair: cobbler shoemaking; sole=shoesoles leather=leathershoes heel=heels
tailoring: tailor bespoke; suit=bespokesuit hem=hemming
upholstery: upholsterer reupholstery; chair=chairs fabric=upholsteryfabric
chimneys: chimneysweep fireplace; soot=soot stove=woodstove flue=flue fireplace=fireplace log=firewood
instruments: musicalinstruments instrumentmaking; organ=pipeorgan reed=reeds tuning=tuning
lighthouses: lighthouse lighthousekeeper; storm=storms foghorn=foghorn lamp=lighthouselamp
# Getting about
walking: walkers countrywalks; hill=hillwalking boot=walkingboots footpath=footpaths map=mapreading
hiking: hikinglife hikers outdoors; map=mapreading trail=trails mountain=mountains summit=summit boot=hikingboots phone=hikingapp app=hikingapp offline=offlinemaps battery=phonebattery contour=contours stile=stiles weather=mountainweather compass=compass group=groupwalks
maps: mapreading cartography; compass=compass contour=contours offline=offlinemaps
navigation: navigating wayfinding; map=mapreading compass=compass gps=gps offline=offlinemaps chart=charts
camping: campinglife campsite; tent=tent stove=campingstove fire=campfire
outdoors: outdoorlife getoutside; tent=camping rucksack=backpacking
climbing: rockclimbing climber; rope=climbingrope belay=belaying crag=crag
mountains: mountaineering mountainlife; glacier=glacier summit=summit
skiing: ski skier; snow=snow lift=skilift
cycling: cyclist bikelife; helmet=cyclehelmet gear=bikegears
bicyclerepair: bikerepair bikemaintenance; chain=bikechain puncture=puncturerepair brake=bikebrakes
running: runner runningtips; marathon=marathon shoe=runningshoes pace=runningpace
swimming: swimmer openwater; goggles=goggles
sailing: sailor sailinglife learntosail; mast=mast sail=sails keel=keel rudder=rudder jib=jib tide=tides
boating: boatlife boat; lock=canallocks engine=boatengine mooring=mooring harbour=harbour anchor=anchoring rope=ropework
canals: canalboat narrowboat waterways; lock=canallock paddle=lockpaddles windlass=windlass gate=lockgates mooring=mooring cill=lockcill
coastalnavigation: navigation learntosail; tide=tides tidal=tides chart=chartwork depth=waterdepth clearance=underkeelclearance aground=runaground harbour=harbour pressure=airpressure swell=swell
rowing: rower rowinglife; boat=rowingboat crew=rowingcrew
diving: scubadiving diver; mask=divemask tank=scubadiving
cars: carlovers motoring; engine=carengine tyre=tyres
carrepair: carmaintenance mechanic; brake=brakes clutch=clutch gearbox=gearbox exhaust=exhaust
electriccars: ev electricvehicles; charger=evcharging battery=evbattery range=evrange
motorbikes: motorcycle biker; helmet=motorcyclehelmet
driving: drivingtips driver; brake=braking mirror=mirrors lesson=drivinglessons
busdriving: busdriver buses busdriverlife; fare=busfares kerb=kerb depot=busdepot shift=shiftwork brake=smoothdriving braking=smoothdriving trainer=busdrivertraining training=busdrivertraining timetable=bustimetable
publictransport: buses commuting; train=trains tram=trams fare=busfares ticket=tickets timetable=timetable
schooltransport: schoolbus schoolrun schools; route=schoolroutes walk=walktoschool walking=walktoschool driver=busdriver village=ruralbuses council=councilcuts
communitytransport: volunteerdrivers volunteering minibus; appointment=hospitalappointments hospital=hospitalappointments mileage=mileage minibus=minibus phone=volunteercoordinator trip=volunteerdriver
transport: traffic transportation; lorry=lorries vehicle=vehicles
trains: railway trainspotting; station=trainstation signal=signals driver=traindriver
trucks: trucking lorrydriver; trailer=trailer load=loads
aviation: pilot flying; airport=airport runway=runway
ships: shipping seafaring; cargo=cargo container=containers
travel: traveltips travelling; passport=passport hotel=hotels flight=flights
roadsafety: saferoads roadsafetytips; pavement=pavements crossing=pedestriancrossing
# Work and money
smallbusiness: smallbusinesstips businessowner; invoice=invoicing supplier=suppliers price=pricing pricing=pricing shop=shopowner
business: businesstips businessowner; profit=profit strategy=strategy
startups: startup founder; investor=investors pitch=pitching
entrepreneurship: entrepreneur founder; idea=businessideas
freelancing: freelancer freelancelife; rate=dayrate invoice=invoicing deadline=deadlines quote=quoting price=pricing
selfemployment: selfemployed soletrader; allowance=allowances tax+return=taxreturn expense=expenses
retail: shops retaillife; shelf=shelves
shopkeeping: shopkeeper shopowner; window=shopwindow
ecommerce: onlineshop onlineselling; parcel=parcels basket=checkout
wholesale: wholesaler trade; supplier=suppliers price=pricing
markets: marketstall streetmarket; stall=marketstall
marketing: marketingtips smallbusinessmarketing; advert=adverts
branding: brand brandidentity; logo=logo
socialmedia: socialmediatips contentcreation; follower=followers
advertising: adverts advertisingtips; slogan=slogans
sales: salestips selling; deal=closingdeals
customerservice: customers customercare; complaint=complaints refund=refunds
packaging: packagingdesign boxes; label=labels tape=packingtape wrap=stretchwrap
bookkeeping: bookkeeper accounts bookkeepingtips; receipt=receipts invoice=invoices spreadsheet=spreadsheets treasurer=treasurer balance=accountsbalance column=spreadsheets difference=accountsbalance
accounting: accountant accounts; audit=audit balance=balancesheet
spreadsheets: spreadsheettips spreadsheethelp; formula=formulas column=columns
tax: taxtips taxreturn selfassessment; allowance=taxallowance penalty=taxpenalty van=vantax expense=expenses lodger=lodger rent=rentalincome receipt=receipts deadline=taxdeadline self-employed=selfemployed
payroll: payrolltips payslips payrollsoftware; minimum=minimumwage overtime=overtime bank=payrollfraud payslip=payslips clock=timesheets holiday=holidaypay leaver=leavers
hr: humanresources hrtips; interview=interviews contract=contracts holiday=holidaypay resign=resignation recruitment=recruitment rota=rostering nurse=nursing
recruitment: hiring recruiting; interview=interviews vacancy=vacancies applicant=applicants
staffretention: employeeretention staffturnover; interview=exitinterview leaver=leavers nurse=nurseretention
shiftwork: shiftworkers shiftpatterns; night=nightshift rota=rota swap=shiftswap roster=rostering saturday=weekendwork nurse=nursing
timesheets: timetracking attendance; overtime=overtime clock=clockingin
management: managementtips manager; staff=staffmanagement team=teammanagement boss=boss delegate=delegating
leadership: leadershiptips leader; team=teamwork
meetings: meetingtips bettermeetings; agenda=agenda
projectmanagement: projectmanager projects; deadline=deadlines
productivity: productivitytips timemanagement; inbox=email habit=habits calendar=calendar focus=focus
remotework: workfromhome homeoffice; desk=homeoffice
workinglife: worklife work; boss=boss colleague=colleagues shift=shiftwork
careers: careertips careeradvice; interview=jobinterview apprentice=apprenticeships
insurance: insurancetips insuranceclaim insurancepolicy; excess=insuranceexcess flood=floodinsurance adjuster=lossadjuster claim=insuranceclaim shop=shopinsurance premium=premiums underinsured=underinsured interruption=businessinterruption broker=insurancebroker
mortgages: mortgage homebuying; rate=interestrates lender=lenders deposit=housedeposit
pensions: retirement pension; annuity=annuity
investing: investor stocks; dividend=dividends risk=investmentrisk fund=funds
savings: savingmoney savingtips; account=savingsaccount budget=budgeting
budgeting: budget moneytips
banking: banks bankaccount; loan=loans transfer=banktransfer
money: moneytips personalfinance
economics: economy inflation; market=markets
fundraising: fundraiser charityfundraising; donor=donors
charity: charities nonprofit; donation=donations trustee=trustees
volunteering: volunteers charity; committee=committees coordinator=volunteercoordinator
treasurer: clubtreasurer charityaccounts; receipt=receipts subscription=membershipfees
committees: committee clubs; trustee=trustees minutes=minutes chair=chairing
communitywork: communitygroups localcommunity; hall=villagehall
warehouse: warehousing warehouselife warehousemanagement; pallet=pallets picking=orderpicking picker=orderpicking error=pickingerrors scanner=barcodescanner wrap=stretchwrap rack=racking driver=lorrydrivers agency=agencyworkers near+miss=nearmiss bay=loadingbay
forklifts: forklift forkliftdriver materialshandling; pallet=pallets battery=electricforklift charger=forkliftcharging electric=electricforklift diesel=dieselforklift mast=forkliftmast load=liftingcapacity capacity=liftingcapacity
logistics: supplychain freight; lorry=lorries parcel=parcels driver=lorrydrivers
supplychain: logistics procurement; inventory=inventory supplier=suppliers container=containers
manufacturing: factory production; assembly=assemblyline
engineering: engineer mechanicalengineering; bearing=bearings torque=torque prototype=prototyping
machinery: machines heavymachinery; hydraulic=hydraulics belt=belts motor=motors
welding: welder metalwork; torch=welding
mining: miners mine; coal=coal
workplacesafety: healthandsafety safetyatwork; ladder=laddersafety near+miss=nearmiss helmet=ppe accident=accidents
cleaners: cleaner cleaningbusiness; mop=mopping
hairdressing: hairdresser hairstylist salonlife; colour=haircolour salon=salonowner client=salonclients cut=haircut barber=barber
beauty: beautytips skincare; cream=skincare makeup=makeup
weddings: weddingplanning wedding; dress=weddingdress venue=weddingvenue cake=weddingcake
events: eventplanning eventmanagement; ticket=tickets venue=venue
training: trainer stafftraining; course=courses
# Health and care
health: healthtips wellbeing
nursing: nurses nurselife; ward=hospitalward shift=nurseshift matron=matron patient=patientcare
hospitals: hospital hospitallife; ward=hospitalward surgeon=surgeon
medicine: doctors medical; diagnosis=diagnosis surgery=surgery dose=medication
firstaid: firstaidtraining firstaider firstaidtips; cpr=cpr compression=chestcompressions defibrillator=defibrillator burn=burns choking=choking ambulance=ambulance bleeding=bleeding breathing=cpr heart=cardiacarrest cardiac+arrest=cardiacarrest bandage=bandages
ambulance: paramedic emergencyservices; siren=emergencyservices
pharmacy: pharmacist medicines; prescription=prescriptions tablet=medication
dentistry: dentist oralhealth; filling=fillings toothbrush=toothbrushing gum=gumhealth
eyesight: eyehealth optician; glasses=glasses lens=contactlenses blind=sightloss
disability: disabilityawareness accessibility; wheelchair=wheelchair blind=sightloss deaf=deafawareness
sightloss: blindness visualimpairment; cane=whitecane guide+dog=guidedog
hearing: hearingloss hearingaids; loud=hearingprotection ear=hearingprotection
mentalhealth: mentalwellbeing mentalhealthawareness; anxiety=anxiety stress=stress depression=depression panic=panicattacks
therapy: therapist counselling; trauma=trauma
sleep: bettersleep sleeptips; insomnia=insomnia snore=snoring nap=napping dream=dreams
fitness: workout fitnesstips; muscle=strengthtraining gym=gym
yoga: yogapractice yogateacher; pose=yogaposes
physiotherapy: physio physiotherapist; knee=kneepain joint=jointpain stretch=stretching
backpain: backcare posture; posture=posture
pregnancy: pregnant motherhood; midwife=midwife birth=childbirth
midwifery: midwife childbirth; birth=birth
parenting: parents parentingtips; toddler=toddlers teenager=teenagers baby=babies tantrum=tantrums bedtime=bedtime
children: kids childhood; school=schoolchildren
adoption: fostering adoptionstory; foster=fostercare
caring: carers caregiver; dementia=dementia elderly=eldercare
ageing: olderpeople ageingwell; retirement=retirement
dementia: dementiacare alzheimers; memory=memoryloss carer=carers
death: endoflife deathanddying; funeral=funeral undertaker=undertaker grave=graveyard
grief: bereavement loss; widow=widowhood
relationships: marriage couples; divorce=divorce wedding=weddings
friendship: friends friendships; lonely=loneliness
# Learning and society
education: teachers learning; exam=exams classroom=classroom
teaching: teacher teacherlife; classroom=classroom lesson=lessonplanning
schools: schoollife headteacher; playground=playground
university: students studentlife; lecture=lectures thesis=thesis exam=exams
learning: learningtips lifelonglearning; beginner=beginners
languagelearning: learnalanguage languages languageteacher; accent=accents vocabulary=vocabulary grammar=grammar verb=verbs mistake=errorcorrection listen=listeningpractice listening=listeningpractice speak=speakingpractice speaking=speakingpractice adult=adultlearners homework=languagehomework telephone=phonecalls
learnenglish: englishlearning esl; accent=accents listening=englishlistening listen=englishlistening pronunciation=pronunciation telephone=phoneenglish phone=phoneenglish
translation: translator interpreting; interpreter=interpreter
bilingualism: bilingual bilingualkids; accent=accents
speech: voice speaking; stammer=stammering
publicspeaking: speaker publicspeakingtips; nervous=stagefright slide=presentations
communication: communicationskills listening; feedback=feedback
libraries: library librarian librarylife; catalogue=librarycatalogue shelf=libraryshelves barcode=barcodescanner loan=libraryloans overdue=overduebooks letter=overdueletters subject=subjectheadings stocktake=stocktake missing=missingbooks fine=libraryfines
archives: archivist historicalrecords; letter=oldletters document=documents
localhistory: villagehistory historylovers; chapel=chapel railway=oldrailway photograph=oldphotos
genealogy: familyhistory ancestry; census=census grandfather=grandparents
history: historylovers historyfacts; war=warhistory king=kings medieval=medieval
archaeology: archaeologist dig; trench=excavation
philosophy: philosopher ideas; moral=ethics
religion: faith church; prayer=prayer bible=bible
psychology: humanbehaviour mind; emotion=emotions bias=bias
science: scientist sciencefacts; experiment=experiments laboratory=laboratory
physics: physicist physicsfacts; quantum=quantum gravity=gravity
chemistry: chemist chemicalreaction; acid=acids
biology: biologist lifescience; dna=dna evolution=evolution
mathematics: maths mathstips; fraction=fractions
statistics: stats dataanalysis; survey=surveys
law: lawyer legaladvice; judge=judges court=court contract=contracts
crime: truecrime police; burglar=burglary prison=prison
fraud: scams scamalert; bank+details=bankfraud
fireservice: firefighter firesafety; alarm=smokealarm
police: policing policeofficer; detective=detectives
politics: elections government; vote=voting council=localcouncil
localgovernment: council councillor; parish=parishcouncil
planning: planningpermission localplanning; objection=objections
publicservices: council publicspending; library=libraries bin=bincollection
housing: renting homes; landlord=landlords council+house=councilhousing
villagelife: village countrylife; hall=villagehall pub=villagepub
community: localcommunity neighbours; hall=villagehall
cities: citylife urban; traffic=traffic tram=trams
immigration: migration newcomers; visa=visa
emergency: emergencies preparedness; flood=flooding
floods: flooding floodrecovery; sandbag=sandbags mould=mould insurance=floodinsurance
# Technology
technology: tech gadgets; battery=batterylife
software: softwaretips businesssoftware; update=updates login=passwords
softwarereview: softwaretips reviews; trial=freetrial
apps: mobileapps apptips; phone=phoneapps
programming: coding developer; test=softwaretesting
webdesign: websites webdesigner; layout=weblayout
data: dataentry database; dashboard=dashboards
cybersecurity: onlinesafety infosec; password=passwords phishing=phishing virus=malware
passwords: passwordsafety onlinesafety; login=logins
artificialintelligence: ai machinelearning; prompt=prompts robot=robots
robots: robotics automation; arm=robotarm
electronics: circuits electronicsrepair; solder=soldering battery=batteries
computers: computing pc; laptop=laptop keyboard=keyboard printer=printers
phones: smartphone mobilephone; battery=phonebattery charger=phonecharger camera=phonecamera
audio: sound audiogear; headphone=headphones microphone=microphone
lighting: lights lightingdesign; led=ledlights lamp=lamps
drones: drone dronepilot dronephotography; battery=dronebattery gimbal=gimbal propeller=propellers
printing3d: additivemanufacturing makerspace; filament=filament nozzle=nozzle
smarthome: homeautomation smartdevices; thermostat=smartthermostat
space: spaceexploration astronaut; rocket=rockets satellite=satellites
energy: power electricity; turbine=turbines grid=powergrid
windpower: windenergy windturbines; offshore=offshorewind
batteries: battery batterytech; charging=charging lithium=lithiumbattery
tools: powertools handtools; cordless=cordlesstools
toolreview: tooltest powertools; battery=batterylife cordless=cordlesstools ear=earprotection blade=blades
# Sport
sport: sports training; coach=coaching referee=referee
football: footballer footballtraining; goalkeeper=goalkeeper penalty=penalties
rugby: rugbyplayer rugbyunion; scrum=scrum
cricket: cricketer cricketlovers; bowler=bowling wicket=wickets
tennis: tennisplayer tennistips; serve=tennisserve
golf: golfer golftips; bunker=bunkershot
athletics: trackandfield athlete; sprint=sprinting
boxing: boxer boxingtraining; punch=punching
martialarts: martialartist selfdefence; karate=karate judo=judo
gymnastics: gymnast gymnasts; vault=vault
icehockey: hockey icehockeyplayer; goalie=goalie
coaching: coach coachingtips; session=coachingsession
bowls: lawnbowls bowlingclub; bowling+green=bowlinggreen
darts: dartsplayer dartboard; board=dartboard
`;
