{
 "version": 1,
 "source": "yard.png",
 "stack": [
  {
   "id": "ceeccf8a435a",
   "name": "Sieve 1",
   "on": true,
   "pick": {
    "samples": [
     {
      "id": "855fece2f1bd",
      "name": "",
      "role": "keep",
      "on": true,
      "x": 1230.0,
      "y": 330.0,
      "frame": 0,
      "size": 5,
      "colour": [
       0.014765976704657078,
       0.027649370953440666,
       0.13419357657432557
      ],
      "compare": "surface",
      "tolerance": 6.0,
      "falloff": 1.0,
      "shape": "linear",
      "bend": 0.0
     }
    ],
    "shading": 85.0,
    "gloss": 0.0
   },
   "invert": false,
   "strength": 100.0,
   "adjust": {
    "hue": 110.0,
    "saturation": 10.0,
    "lightness": 0.0
   }
  }
 ],
 "gamut": "lower chroma"
}
