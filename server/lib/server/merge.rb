# frozen_string_literal: true

module Server
  # Documents of three ages: what was there before a change, what the change made of it, and what is there now that others
  # have gone on. Lists whose members have ids are merged member by member, hashes by their keys; all else is one value.
  #
  # Source: the three-way comparison of S. Khanna, K. Kunal, B. C. Pierce, A formal investigation of diff3, FSTTCS 2007, with
  # ids in place of common lines.
  module Merge
    # The same place was changed again.
    class Conflict < Mordant::Error; end

    NONE = Object.new.freeze # what is not there
    private_constant :NONE

    module_function

    # @param now [Hash, Array, Object] as in JSON, as are before and after
    # @return [Hash, Array, Object] what is there now, without the change
    # @raise [Conflict] where what the change made is not there any more
    def without(now, before:, after:)
      return now if before == after || now == before
      return before if now == after

      all = [now, before, after]
      return keyed(*all) if all.all?(Hash)
      return listed(*all) if all.all? { |one| members?(one) }

      raise Conflict, "changed again"
    end

    # @return [Boolean] a list whose members have ids, each one of its own
    def members?(list) = list.is_a?(Array) && list.all? { |member| member.is_a?(Hash) && member["id"] } && list.uniq { |member| member["id"] }.size == list.size

    # @return [Hash]
    def keyed(now, before, after) = together(now.keys | before.keys, now, before, after)

    # @param ages [Array<Array<Hash>>] now, before and after
    # @return [Array<Hash>]
    def listed(*ages)
      named = ages.map { |members| members.to_h { |member| [member["id"], member] } }
      together(order(*named.map(&:keys)) | named.last.keys, *named).values
    end

    # Each value without the change; what is not there then is left out.
    #
    # @param names [Array<String>]
    # @param ages [Array<Hash>] now, before and after
    # @return [Hash]
    def together(names, *ages)
      names.each_with_object({}) do |name, kept|
        now, before, after = ages.map { |age| age.fetch(name, NONE) }
        value = without(now, before:, after:)
        kept[name] = value unless value.equal?(NONE)
      end
    end

    # Ids in the order that they had before the change; those it took out are put behind the ones they stood behind.
    #
    # @return [Array<String>]
    # @raise [Conflict] where others have moved them again
    def order(now, before, after)
      moved = now & before & after
      unless (before & moved) == (after & moved)
        raise Conflict, "moved again" unless moved == (after & moved)

        places = (before & moved).each
        now = now.map { |id| moved.include?(id) ? places.next : id }
      end
      (before - after - now).each_with_object(now.dup) do |id, kept|
        ahead = before.take_while { |other| other != id }.reverse.find { |other| kept.include?(other) }
        kept.insert(ahead ? kept.index(ahead) + 1 : 0, id)
      end
    end

    private_class_method :members?, :keyed, :listed, :together, :order
  end
end
