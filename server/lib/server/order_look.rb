# frozen_string_literal: true

module Server
  # What the outputs of an order would be, looked at before it is placed: each by itself, so
  # that one that cannot be says why while the others are told.
  class OrderLook
    # @param cut [Cut]
    # @param sheets [Array<Hash>] see Order.place
    # @param template [String]
    # @param shots [Array<Shot>, nil]
    # @raise [Mordant::ParameterError] of no list of outputs
    def initialize(cut, sheets:, template:, shots:)
      @cut, @template, @shots = cut, template, shots || [nil]
      @sheets = Order.listed(sheets)
    end

    # @return [Array<Hash>] statement and warnings of each output; refusal, in words, of one that
    #   cannot be ordered as it is
    def to_a
      made = @sheets.map { |document| read(document) }
      names = made.flat_map { |one| one[:names].to_a }.tally
      made.map { |one| one.except(:names).merge(clash(one, names)) }
    end

    private

    def read(document)
      sheet = Order.sheet(@cut.project, document.except("name"), path: "")
      naming = Mordant::Deliver::Naming.new(document["name"] || @template)
      {statement: sheet.statement, warnings: sheet.warnings + rates + levels(sheet), names: @shots.map { |shot| Order.named(@cut, sheet, naming, shot) }}
    rescue Mordant::ParameterError => e
      {statement: "", warnings: [], refusal: Spoken.of(e)}
    rescue Mordant::UnknownIdError => e
      {statement: "", warnings: [], refusal: e.message}
    end

    # Two outputs, or two shots, would be one file.
    def clash(one, names)
      own = one[:names].to_a
      return {refusal: "all shots would be named #{own.first}; add {shot} to the name"} if own.uniq.size < own.size

      other = own.find { |name| names[name] > 1 }
      other ? {refusal: "another output has the name #{other} too; add {format} or {encoding} to the names, or give one a name of its own"} : {}
    end

    # Clips whose rate is not the project's, and how they are taken.
    def rates
      @rates ||= begin
        shots = @shots.compact.empty? ? @cut.loaded_shots : @shots
        shots.select { |shot| shot.clip.other_rate? }.group_by { |shot| shot.clip.pace }.map do |pace, some|
          names = some.map(&:name).uniq
          "#{(names.size > 4) ? "#{names.size} shots" : names.join(", ")}: of another rate than the project's #{rate}, taken #{Clip::PACES.fetch(pace)}"
        end
      end
    end

    # Shots that a rendition is made of without knowing their levels, or by old ones.
    def levels(sheet)
      return [] unless sheet.view.aim

      {"none" => "not measured: mapped as if they used all that the HDR target can show", "stale" => "changed since they were measured"}.filter_map do |state, words|
        names = states.fetch(state, [])
        "#{(names.size > 4) ? "#{names.size} shots" : names.join(", ")}: #{words} (Renditions room)" if names.any?
      end
    end

    # @return [Hash{String => Array<String>}] names of shots with pictures, by what is known of their levels
    def states
      @states ||= begin
        list = RenditionList.new(@cut)
        wanted = @shots.compact.map(&:id)
        @cut.renditions.shots.select { |shot| !shot.clip.placeholder? && (wanted.empty? || wanted.include?(shot.id)) }.group_by { |shot| list.state(shot) }.transform_values { |shots| shots.map(&:name) }
      end
    end

    def rate = @cut.project.rate.then { |rate| (rate.denominator == 1) ? rate.to_i : rate.to_f.round(3) }
  end
end
