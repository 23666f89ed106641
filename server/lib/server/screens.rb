# frozen_string_literal: true

module Server
  # What a request says of the screen it is for.
  module Screens
    module_function

    # @param project [Project]
    # @param document [Hash, nil] target, canvas, view, exaggerate, lut and bright, see Mordant::Grade::Screen; screen: id of one
    #   that was measured, whose canvas and correction it has; nil: as the project says
    # @return [Mordant::Grade::Screen]
    # @raise [Mordant::ParameterError, Mordant::MediaError, Record::Missing]
    def of(project, document)
      wish = document || {}
      raise Mordant::ParameterError.new(path: "on", expected: "an object", found: document) unless wish.is_a?(Hash)

      screen = wish["screen"] && Screen.fetch(wish["screen"])
      Mordant::Grade::Screen.new(view: project.view_of(wish["target"]), canvas: (screen&.canvas || wish["canvas"] || project.canvas).to_s, space: project.space,
        on: wish["view"] != false, exaggerate: wish["exaggerate"] == true, lut: wish["lut"].to_s.then { |path| path unless path.empty? }, corrected: screen&.correction, bright: wish["bright"])
    end
  end
end
