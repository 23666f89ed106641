# frozen_string_literal: true

module Server
  # Outputs that somebody keeps to order again, in any project.
  class OrderPreset < Record
    MOST = 100

    # @param name [String] one with that name is replaced
    # @param sheets [Array<Hash>] as orders take them
    # @raise [Mordant::ParameterError]
    def self.keep(project, name, sheets)
      text = name.to_s.strip
      raise Mordant::ParameterError.new(path: "name", expected: "1 to 60 characters", found: name) unless text.length.between?(1, 60)
      raise Mordant::ParameterError.new(path: "presets", expected: "at most #{MOST}", found: count) if count >= MOST && !exists?(name: text)

      Order.read(project, sheets, "{cut}")
      find_or_initialize_by(name: text).update!(sheets:)
    end

    def to_h = {id: "own-#{id}", own: id, label: name, about: "your own", outputs: sheets}
  end
end
