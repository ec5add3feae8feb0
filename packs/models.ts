/** Names of the models of all packs, apart from the packs: the garage names vehicles without loading what is known of them. */
export const MODELS: Record<string, Record<string, string>> = {
  aldermoor: {
    "two-seater": "Aldermoor Two-seater",
  },
  calverra: {
    hatch: "Calverra hatchback",
    "hatch-early": "Calverra hatchback, early",
  },
  dunmarrow: {
    "pickup-early": "Dunmarrow Pickup, early",
    pickup: "Dunmarrow Pickup",
  },
  "hollin-pike": {
    truck: "Hollin & Pike Truck",
  },
  lindqvar: {
    saloon: "Lindqvar Saloon",
    "saloon-early": "Lindqvar Saloon, early",
  },
  merrow: {
    "mini-merrow": "Merrow Small car",
  },
  norrvik: {
    estate: "Norrvik Estate",
    pickup: "Norrvik Pickup",
  },
  osaril: {
    coupe: "Osaril Coupe",
    van: "Osaril Van",
  },
  pellworth: {
    mini: "Pellworth Mini",
  },
  tarvello: {
    sport: "Tarvello Sport",
    tour: "Tarvello Tour",
  },
};
