"""Forty recipes of our own as people write them, and what every line weighs, reckoned by hand.

A line is `text | name | amount`: grams as the recipe has it, `3 x` for what is counted, `?` for
what must be asked, `-` for what is only known to be there; `#` is a heading. Spoons and cups by
definition (14.787 and 236.588 ml; metric 15 and 250). Of a cup table salt has 288 g (18 g a
tablespoon), honey 339, soy sauce 255, wine 235.1, vinegar 239, oil 216, buttermilk 245 (USDA
National Nutrient Database, release 28); sugar 200, brown sugar 220, fine sea salt 270, hollow
flakes 135, compact coarse 240 (common practice).
"""

BY_HAND = """
== en, us: even brine for a loin
2 quarts water | water | 1892.7
1/2 cup table salt | salt-table | 144
1/4 cup brown sugar, packed | brown-sugar | 55
2 tsp curing salt no. 1 | curing-salt-1 | 12
4 bay leaves | bay-leaf | 4 x
10 peppercorns | black-pepper | 10 x
== en, us: quick brine for a bird
1 gallon water | water | 3785.4
1 cup fine sea salt | salt-fine-sea | 270
1/3 cup honey | honey | 113
6 cloves garlic | garlic | 6 x
== en, us: dry rub
3 tablespoons brown sugar | brown-sugar | 41.25
2 tablespoons table salt | salt-table | 36
1 teaspoon cayenne | cayenne | -
== en, us: salt of unknown kind
1 cup coarse salt | ? | ?
2 tbsp salt | ? | ?
1 lb sugar | sugar | 453.6
== en, us: pink
1 tbsp pink salt | ? | ?
5 g curing salt #1 | curing-salt-1 | 5
== en, us: per pound
Per pound of meat: | # |
0.1 oz curing salt no. 1 | curing-salt-1 | 2.835
1/4 oz table salt | salt-table | 7.087
== en, us: buttermilk birds
2 cups buttermilk | buttermilk | 490
1 tbsp table salt | salt-table | 18
1 tsp paprika | paprika | -
For the coat: | # |
2 cups flour | flour | 250
2 eggs | egg | 2 x
== en, us: soy and honey
1/2 cup soy sauce | soy-sauce | 127.5
2 tbsp honey | honey | 42.4
1 tbsp grated ginger | ginger | -
== en, us: red wine for a haunch
1 bottle red wine | ? | ?
2 cups red wine | wine | 470.2
1/4 cup olive oil | oil | 54
2 onions | onion | 2 x
== en, us: quick pickle
1 1/2 cups white vinegar | vinegar | 358.5
1 cup water | water | 236.6
1 tbsp pickling salt | salt-pickling | 18.1
2 tbsp sugar | sugar | 25
== en, metric: gammon
2 l water | water | 2000
160 g fine sea salt | salt-fine-sea | 160
80 g treacle | treacle | 80
9.6 g curing salt no. 1 | curing-salt-1 | 9.6
== en, metric: metric spoons
500 ml water | water | 500
2 metric tbsp table salt | salt-table | 36.5
== en, imperial: a pint of beer
1 pint beer | beer | -
2 oz table salt | salt-table | 56.7
== en, us: yoghurt goat
500 g yoghurt | yoghurt | 500
2 tsp table salt | salt-table | 12
juice of 2 lemons | citrus-juice | -
== en, us: ground meat
2 tsp table salt | salt-table | 12
1/2 cup milk | milk | 122
3 eggs | egg | 3 x
a handful of parsley | parsley | 1 x
== en, us: rinsed fish
80 g coarse salt | salt-compact-coarse | 80
60 g brown sugar | brown-sugar | 60
dill | dill | -
== en, us: alder trout
1 kg water | water | 1000
90 g pickling salt | salt-pickling | 90
30 ml golden syrup | syrup | 40.6
== en, us: celery
20 g celery powder | celery-powder | 20
1 l water | water | 1000
== en, us: stock, a side job
1 kg chicken bones | chicken bones | 1000
3 l water | water | 3000
2 carrots | carrot | 2 x
== en, us: dough, a side job
500 g flour | flour | 500
320 ml water | water | 320
10 g table salt | salt-table | 10
7 g dry yeast | dry yeast | 7
== de: Lake für Schinken
2 l Wasser | water | 2000
160 g Speisesalz | salt-table | 160
50 g Zucker | sugar | 50
5 Lorbeerblätter | bay-leaf | 5 x
== de: Pökelsalz
1 kg Nitritpökelsalz | nitrite-salt | 1000
20 g Rohrzucker | brown-sugar | 20
== de: Trockenpökeln, je Kilo
je kg Fleisch: | # |
35 g Nitritpökelsalz 0,4-0,5 % | nitrite-salt | 35
5 g Zucker | sugar | 5
== de: Beize
1/2 l Rotwein | wine | 497
2 EL Essig | vinegar | 30.3
2 Zwiebeln | onion | 2 x
== de: Teig
500 g Mehl | flour | 500
1 TL Salz | ? | ?
== de: Honigsenf
3 EL Honig | honey | 64.5
100 ml Sojasauce | soy-sauce | 107.8
== fr: saumure
2 litres d'eau | water | 2000
150 g de sel fin | salt-table | 150
50 g de sucre | sugar | 50
3 feuilles de laurier | bay-leaf | 3 x
== fr: marinade au vin
50 cl de vin rouge | wine | 496.9
10 cl d'huile d'olive | oil | 91.3
2 oignons | onion | 2 x
== fr: sel nitrité
25 g de sel nitrité | nitrite-salt | 25
5 g de sucre | sugar | 5
== fr: pâte
500 g de farine | flour | 500
30 cl d'eau | water | 300
== it: salamoia
2 litri d'acqua | water | 2000
120 g di sale fino | salt-table | 120
40 g di zucchero | sugar | 40
== it: marinata
200 ml di vino bianco | wine | 198.7
50 ml di olio d'oliva | oil | 45.6
2 cipolle | onion | 2 x
== it: yogurt
300 g di yogurt | yoghurt | 300
10 g di sale fino | salt-table | 10
== it: pane
500 g di farina | flour | 500
350 ml di acqua | water | 350
== es: salmuera
2 litros de agua | water | 2000
140 g de sal fina | salt-table | 140
60 g de azúcar | sugar | 60
== es: adobo
100 ml de vinagre | vinegar | 101
50 ml de aceite de oliva | oil | 45.6
4 dientes de ajo | garlic | 4 x
== es: sal nitrificante
30 g de sal nitrificante | ? | ?
20 g de sal curante | ? | ?
10 g de azúcar | sugar | 10
== es: masa
500 g de harina | flour | 500
300 ml de agua | water | 300
10 g de sal fina | salt-table | 10
== mixed: what nobody knows
3 tbsp moon moss | moon moss | -
100 g star crumbs | star crumbs | 100
2 quince | quince | 2 x
== en, us: half of the brine into the pot
1 quart water | water | 946.4
60 g table salt | salt-table | 60
For the pot: | # |
1 lb potatoes | potato | 453.6
1 small cabbage | cabbage | 1 x
== en, us: said as people say it
Herb paste shoulder | # |
60 g salt | salt-table | 60
300 ml oil | oil | 273.9
juice of 1 lemon | citrus-juice | 46.4
seared, 12 minutes in a very hot oven | # |
taken out at 71, rested | # |
smoked at 110 for two hours | # |
half of the brine goes into the pot | # |
== en, us: a title that names a thing
Soy belly | # |
100 ml soy sauce | soy-sauce | 107.8
60 g honey | honey | 60
a thumb of ginger | ginger | 1 x
"""
